import { Marked, type Tokens } from 'marked';
import { safe } from '../formats/html-out/escape';
import { referenceOf, type Reference } from '../model/address';

/** What a reference is shown as. */
export interface Said {
  readonly words: string;
  /** What it led to was deleted. */
  readonly gone: boolean;
}

/**
 * A memo's Markdown as HTML. Nothing of it can be markup of the writer's: HTML is shown as text, pictures by their
 * description, and of addresses only those of the web and of Filum itself lead anywhere (`#filum:…`, to be caught).
 * @param say what a reference is shown as; without it, as it was written
 */
export function memoHtml(markdown: string, say?: (reference: Reference, label: string) => Said): string {
  const reader = new Marked({
    gfm: true,
    breaks: true,
    async: false,
    renderer: {
      html: ({ text }: Tokens.HTML | Tokens.Tag) => safe(text),
      image: ({ text, href }: Tokens.Image) => safe(text || href),
      link({ raw, href: address, tokens, text }: Tokens.Link) {
        // an address that stands by itself may have been written with its signs escaped
        const bare = /^https?:/i.test(raw);
        const href = bare ? unescaped(raw) : address;
        const reference = referenceOf(href);
        if (reference) {
          const said = say?.(reference, text) ?? { words: text, gone: false };
          return said.gone ? `<s>${safe(said.words)}</s> <em>(no longer there)</em>` : `<a href="#${safe(href)}">${safe(said.words)}</a>`;
        }
        const words = bare ? safe(href) : this.parser.parseInline(tokens);
        return /^https?:\/\//i.test(href) ? `<a href="${safe(href)}" rel="noopener noreferrer" target="_blank">${words}</a>` : words;
      },
    },
  });
  return reader.parse(markdown) as string;
}

const unescaped = (text: string): string => text.replace(/\\([\\`*_[\]~])/g, '$1').replace(/&amp;/g, '&');
