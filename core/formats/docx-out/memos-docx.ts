import { Document, HeadingLevel, Packer, Paragraph, TextRun } from 'docx';
import { marked, type Token, type Tokens } from 'marked';
import type { Memo } from '../../model/memo';
import type { StudyState } from '../../model/study-state';
import { nameOfSubject } from '../../memos/name-of-subject';
import { subjectsOf } from '../../memos/references';

/** Memos as a Word document: a heading a memo, a smaller one a date; emphasis, lists and quotations stay. */
export async function memosDocx(
  title: string,
  state: Pick<StudyState, 'tables' | 'passages'>,
  memos: readonly Memo[],
): Promise<Uint8Array> {
  const children = [
    new Paragraph({ text: `${title}: memos`, heading: HeadingLevel.TITLE }),
    ...memos.flatMap((memo) => {
      const about = subjectsOf(memo).map((subject) => nameOfSubject(state, subject) ?? 'something that is gone');
      const signs = [memo.kind, ...(memo.tags ?? []), ...(about.length > 0 ? [`about ${about.join(', ')}`] : [])].join(' · ');
      return [
        new Paragraph({ text: memo.title, heading: HeadingLevel.HEADING_1 }),
        new Paragraph({ children: [new TextRun({ text: signs, italics: true })] }),
        ...memo.entries.flatMap((entry) => [
          new Paragraph({
            text: `${new Date(entry.writtenAt).toISOString().slice(0, 10)}, ${state.tables.coder[entry.coderId]?.name ?? ''}${entry.editedAt ? ' (edited later)' : ''}`,
            heading: HeadingLevel.HEADING_2,
          }),
          ...marked.lexer(entry.text).flatMap((token) => blocks(token, {})),
        ]),
      ];
    }),
  ];
  const blob = await Packer.toBlob(new Document({ title: `${title}: memos`, creator: 'Filum', sections: [{ children }] }));
  return new Uint8Array(await blob.arrayBuffer());
}

interface Look {
  readonly bold?: boolean;
  readonly italics?: boolean;
}

function blocks(token: Token, layout: { readonly bullet?: { level: number }; readonly indent?: { left: number } }): Paragraph[] {
  switch (token.type) {
    case 'heading':
      return [new Paragraph({ heading: HeadingLevel.HEADING_3, children: runs((token as Tokens.Heading).tokens, {}) })];
    case 'list':
      return (token as Tokens.List).items.flatMap((item) =>
        item.tokens.flatMap((inner) =>
          inner.type === 'list'
            ? blocks(inner, { bullet: { level: Math.min(8, (layout.bullet?.level ?? 0) + 1) } })
            : blocks(inner, { bullet: layout.bullet ?? { level: 0 } }),
        ),
      );
    case 'blockquote':
      return (token as Tokens.Blockquote).tokens.flatMap((inner) => blocks(inner, { indent: { left: 600 } }));
    case 'space':
      return [];
    default:
      return [new Paragraph({ ...layout, children: runs('tokens' in token && token.tokens ? token.tokens : [token], {}) })];
  }
}

function runs(tokens: readonly Token[], look: Look): TextRun[] {
  return tokens.flatMap((token) => {
    if (token.type === 'strong') return runs((token as Tokens.Strong).tokens, { ...look, bold: true });
    if (token.type === 'em') return runs((token as Tokens.Em).tokens, { ...look, italics: true });
    if (token.type === 'br') return [new TextRun({ text: '', break: 1 })];
    if ('tokens' in token && token.tokens) return runs(token.tokens, look);
    const text = 'text' in token ? String(token.text) : token.raw;
    return [new TextRun({ text: unescaped(text), ...look })];
  });
}

const unescaped = (text: string): string =>
  text.replace(/&(amp|lt|gt|quot|#39);/g, (sign) => ({ '&amp;': '&', '&lt;': '<', '&gt;': '>', '&quot;': '"', '&#39;': "'" })[sign]!);
