import type { Editor } from '@tiptap/core';
import fc from 'fast-check';
import { memoHtml } from '@core/memos/memo-html';
import { makeRichText } from './rich-text';

describe('rich text that is kept as Markdown', () => {
  let editor: Editor;
  const open = (text: string): Editor => {
    editor?.destroy();
    const element = document.createElement('div');
    document.body.append(element);
    return (editor = makeRichText({ element, text, offers: () => [], changed: () => undefined }));
  };
  /** Paragraphs of plain words, as somebody types them. */
  const typed = (lines: readonly string[]): string => {
    open('').commands.setContent({
      type: 'doc',
      content: lines.map((line) => ({ type: 'paragraph', ...(line && { content: [{ type: 'text', text: line }] }) })),
    });
    return editor.getMarkdown();
  };
  const words = (one: Editor): string[] => {
    const lines: string[] = [];
    one.state.doc.forEach((node) => lines.push(`${node.type.name === 'paragraph' ? '' : `${node.type.name}: `}${node.textContent}`));
    return lines;
  };
  /** Typed a sign at a time, as the rules for typing see it. */
  const typeSigns = (signs: string): void => {
    for (const sign of signs) {
      const { from, to } = editor.state.selection;
      const insert = () => editor.state.tr.insertText(sign, from, to);
      const takes = editor.view.someProp('handleTextInput', (handle) => handle(editor.view, from, to, sign, insert));
      if (!takes) editor.view.dispatch(insert());
    }
  };
  afterEach(() => editor?.view.dom.parentElement?.remove());

  it('keeps signs and addresses as they were typed, there and in what is shown', () => {
    const lines = [
      '2 * 3 * 4',
      'see https://pier.example/a_long_name_here?x=1&y=2 there',
      '1. not a list',
      '# no heading',
      '- no item',
      '> no quote',
      'a_b_c [x] <b> &amp; `q` ~s~',
    ];
    const markdown = typed(lines);
    expect(words(open(markdown))).toEqual(lines);
    const shown = document.createElement('div');
    shown.innerHTML = memoHtml(markdown);
    expect([...shown.querySelectorAll('p')].map((one) => one.textContent)).toEqual(lines);
    expect(shown.querySelector('a')?.getAttribute('href')).toBe('https://pier.example/a_long_name_here?x=1&y=2');
  });

  it('comes back as it was, whatever is typed', () => {
    const piece = fc.constantFrom(
      'ferry',
      ' ',
      '*',
      '_',
      '#',
      '-',
      '+',
      '1.',
      '>',
      '|',
      '`',
      '~',
      '[',
      ']',
      '(',
      ')',
      '!',
      '\\',
      '<b>',
      '&',
      '&lt;',
      '=',
      'é',
      '渡',
      'http://a.b/c_d',
      '@',
    );
    const line = fc.array(piece, { minLength: 1, maxLength: 7 }).map((parts) => parts.join('').replace(/\s+/g, ' ').trim());
    fc.assert(
      fc.property(
        fc.array(
          line.filter((one) => one !== ''),
          { minLength: 1, maxLength: 4 },
        ),
        (lines) => {
          expect(words(open(typed(lines)))).toEqual(lines);
        },
      ),
      { numRuns: 120 },
    );
  });

  it('makes emphasis of signs that stand at words while they are typed, and leaves a product alone', () => {
    open('');
    typeSigns('2 * 3 * 4 and *so* it is **not** - ** no ** ');
    expect(editor.getText()).toBe('2 * 3 * 4 and so it is not - ** no ** ');
    expect(editor.state.doc.firstChild!.type.name).toBe('paragraph');
    expect(memoHtml(editor.getMarkdown())).toContain('<em>so</em> it is <strong>not</strong>');
  });

  it('leaves signs at the beginning of a line alone: a number sign is no heading until somebody says so', () => {
    for (const typed of ['# 12 boats', '> and more', '``` ferry', '--- so']) {
      open('');
      typeSigns(typed);
      expect(words(editor)).toEqual([typed]);
    }
    open('');
    typeSigns('- a list');
    expect(words(editor)[0]).toBe('bulletList: a list');
  });

  it('keeps tables through an edit elsewhere, and two of them apart', () => {
    const table = '| place | boats |\n| --- | --- |\n| Gull Bay | 2 |';
    open(`Before\n\n${table}\n\nbetween\n\n${table}`);
    editor.commands.insertContentAt(1, 'x');
    const markdown = editor.getMarkdown();
    expect(words(open(markdown)).filter((line) => line.startsWith('table'))).toEqual([
      'table: placeboatsGull Bay2',
      'table: placeboatsGull Bay2',
    ]);
    expect(memoHtml(markdown).match(/<table>/g)?.length).toBe(2);
    // pasted below each other
    editor.commands.setContent('<table><tr><td>a</td></tr></table><table><tr><td>b</td></tr></table>');
    expect(words(open(editor.getMarkdown())).filter((line) => line.startsWith('table')).length).toBe(2);
  });
});
