import { Editor, Extension, markInputRule } from '@tiptap/core';
import { Bold } from '@tiptap/extension-bold';
import { Italic } from '@tiptap/extension-italic';
import { Strike } from '@tiptap/extension-strike';
import { TableKit } from '@tiptap/extension-table';
import { Markdown } from '@tiptap/markdown';
import StarterKit from '@tiptap/starter-kit';
import Suggestion from '@tiptap/suggestion';

/** Something that can be linked to, with its address. */
export interface LinkOffer {
  readonly name: string;
  readonly what: string;
  readonly address: string;
}

/** What the editor needs from its place. */
export interface RichTextSetting {
  readonly element: HTMLElement;
  /** Markdown. */
  readonly text: string;
  /** Things whose names fit what was typed after `@`. */
  readonly offers: (typed: string) => readonly LinkOffer[];
  readonly changed: () => void;
}

/**
 * An editor of rich text that reads and writes Markdown. Pasted text is cut to what the editor knows: headings,
 * lists, quotations, emphasis and links of the web and of Filum; scripts, pictures and styles do not come in.
 */
export function makeRichText({ element, text, offers, changed }: RichTextSetting): Editor {
  return new Editor({
    element,
    extensions: [
      StarterKit.configure({
        heading: { levels: [1, 2, 3] },
        underline: false,
        bold: false,
        italic: false,
        strike: false,
        link: {
          openOnClick: false,
          autolink: false,
          protocols: ['filum'],
          isAllowedUri: (url) => /^(https?:|mailto:|filum:)/i.test(url ?? ''),
        },
      }),
      ...emphasis,
      TableKit.configure({ table: { resizable: false } }),
      FaithfulMarkdown,
      linking(offers),
    ],
    content: text,
    contentType: 'markdown',
    // signs at the beginning of a line stay what was typed, but for lists, whose signs are still seen
    enableInputRules: ['bold', 'italic', 'strike', 'bulletList', 'orderedList'],
    // its styles are ours; the page allows none from elsewhere
    injectCSS: false,
    editorProps: { attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': 'Memo' } },
    onUpdate: changed,
  });
}

/**
 * Emphasis by typing its signs, only where the signs stand at the words: `2 * 3 * 4` is a product and keeps its signs.
 * @param sign as a pattern
 */
const typedAs = (sign: string): RegExp =>
  new RegExp(`(?:^|\\s)(${sign}(?![\\s${sign.at(-1)}])([^${sign.at(-1)}]*[^\\s${sign.at(-1)}])${sign})$`);

const emphasis = [
  Bold.extend({
    addInputRules() {
      return [String.raw`\*\*`, '__'].map((sign) => markInputRule({ find: typedAs(sign), type: this.type }));
    },
  }),
  Italic.extend({
    addInputRules() {
      return [String.raw`\*`, '_'].map((sign) => markInputRule({ find: typedAs(sign), type: this.type }));
    },
  }),
  Strike.extend({
    addInputRules() {
      return [markInputRule({ find: typedAs('~~'), type: this.type })];
    },
  }),
];

/** A node as the Markdown writer sees it. */
interface WrittenNode {
  readonly type?: string;
  readonly content?: readonly WrittenNode[];
  readonly marks?: readonly { readonly type: string }[];
}

/** What the Markdown writer asks of each text; it leaves out what only matters at the beginning of a line. */
interface TextWriter {
  encodeTextForMarkdown(text: string, node: WrittenNode, parent?: WrittenNode): string;
  escapeMarkdownSyntax(text: string): string;
}

/** Markdown in which every text says itself: signs stay signs, at the beginning of a line as well, and addresses stay addresses. */
const FaithfulMarkdown = Markdown.extend({
  onBeforeCreate(event) {
    this.parent?.(event);
    const writer = this.editor.markdown as unknown as TextWriter;
    const escape = writer.escapeMarkdownSyntax.bind(writer);
    const encode = writer.encodeTextForMarkdown.bind(writer);
    writer.escapeMarkdownSyntax = (text) =>
      text
        .split(ADDRESS)
        // every other part is an address
        .map((part, at) => (at % 2 === 1 ? `<${part.replace(/&amp;(?!#?\w+;)/g, '&')}>` : escape(part)))
        .join('');
    writer.encodeTextForMarkdown = (text, node, parent) => {
      const encoded = encode(text, node, parent);
      const siblings = parent?.content ?? [];
      const at = siblings.indexOf(node);
      const beginsLine = at === 0 || siblings[at - 1]?.type === 'hardBreak';
      const isCode = parent?.type === 'codeBlock' || node.marks?.some((mark) => mark.type === 'code');
      return beginsLine && !isCode ? encoded.replace(/^\s*(?=[#>+=|-])/, '\\').replace(/^\s*(\d{1,9})(?=[.)])/, '$1\\') : encoded;
    };
  },
});

/** An address as it stands in a text whose `<`, `>` and `&` are entities already, without the punctuation behind it. */
const ADDRESS = /(https?:\/\/(?:&amp;|(?!&)[^\s<>*\\])*(?!&)[^\s<>*\\_~.,:;!?'")\]])/;

/** Typing `@` offers things to link to. */
function linking(offers: RichTextSetting['offers']): Extension {
  return Extension.create({
    name: 'linking',
    addProseMirrorPlugins() {
      return [
        Suggestion<LinkOffer, LinkOffer>({
          editor: this.editor,
          char: '@',
          // names have blanks in them
          allowSpaces: true,
          items: ({ query }) => [...offers(query)],
          command: ({ editor, range, props }) => {
            editor
              .chain()
              .focus()
              .insertContentAt(range, [
                { type: 'text', text: props.name, marks: [{ type: 'link', attrs: { href: props.address } }] },
                { type: 'text', text: ' ' },
              ])
              .run();
          },
          render: () => {
            let list: OfferList | null = null;
            return {
              onStart: (props) => {
                list = new OfferList(props.command);
                list.show(props.items, props.clientRect?.() ?? null);
              },
              onUpdate: (props) => {
                if (list) list.command = props.command;
                list?.show(props.items, props.clientRect?.() ?? null);
              },
              onKeyDown: ({ event }) => list?.onKey(event) ?? false,
              onExit: () => list?.remove(),
            };
          },
        }),
      ];
    },
  });
}

/** The list under the caret while a link is being chosen. */
class OfferList {
  private readonly element = document.createElement('ul');
  private items: readonly LinkOffer[] = [];
  private marked = 0;

  constructor(public command: (offer: LinkOffer) => void) {
    this.element.className = 'link-offers';
    this.element.setAttribute('role', 'listbox');
    this.element.setAttribute('aria-label', 'Things to link to');
    document.body.append(this.element);
  }

  show(items: readonly LinkOffer[], at: DOMRect | null): void {
    this.items = items;
    this.marked = Math.min(this.marked, Math.max(0, items.length - 1));
    if (at) {
      this.element.style.left = `${Math.min(at.left, innerWidth - 330)}px`;
      // where there is no room under the caret the list stands on it
      const above = at.bottom + 4 + 240 > innerHeight;
      this.element.style.top = above ? 'auto' : `${at.bottom + 4}px`;
      this.element.style.bottom = above ? `${innerHeight - at.top + 4}px` : 'auto';
    }
    this.element.hidden = items.length === 0;
    this.draw();
  }

  onKey(event: KeyboardEvent): boolean {
    if (this.items.length === 0) return false;
    if (event.key === 'ArrowDown') this.marked = (this.marked + 1) % this.items.length;
    else if (event.key === 'ArrowUp') this.marked = (this.marked + this.items.length - 1) % this.items.length;
    else if (event.key === 'Enter' || event.key === 'Tab') {
      this.command(this.items[this.marked]!);
      return true;
    } else return false;
    this.draw();
    return true;
  }

  remove(): void {
    this.element.remove();
  }

  private draw(): void {
    this.element.replaceChildren(
      ...this.items.map((item, at) => {
        const row = document.createElement('li');
        row.setAttribute('role', 'option');
        row.setAttribute('aria-selected', String(at === this.marked));
        const what = document.createElement('span');
        what.textContent = item.what;
        row.append(item.name, what);
        row.addEventListener('mousedown', (event) => {
          event.preventDefault();
          this.command(item);
        });
        return row;
      }),
    );
  }
}
