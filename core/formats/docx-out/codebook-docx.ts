import { Document, HeadingLevel, Packer, Paragraph, TextRun } from 'docx';
import type { CodebookRow } from '../../codebook/codebook-rows';
import { DESCRIPTION_LABELS } from '../../codebook/described';
import { codeColour } from '../../model/palette';
import { hexOf } from '../../model/colour-hex';

const HEADINGS = [
  HeadingLevel.HEADING_1,
  HeadingLevel.HEADING_2,
  HeadingLevel.HEADING_3,
  HeadingLevel.HEADING_4,
  HeadingLevel.HEADING_5,
  HeadingLevel.HEADING_6,
];

/** The codebook as a Word document: a heading a code by its level, so that the outline of Word shows the tree. */
export async function codebookDocx(title: string, rows: readonly CodebookRow[]): Promise<Uint8Array> {
  const children = [
    new Paragraph({ text: `${title}: codebook`, heading: HeadingLevel.TITLE }),
    new Paragraph(`${rows.length} codes. Counts are of passages, not of people.`),
    ...rows.flatMap((row) => paragraphsOf(row)),
  ];
  const blob = await Packer.toBlob(new Document({ title: `${title}: codebook`, creator: 'Filum', sections: [{ children }] }));
  return new Uint8Array(await blob.arrayBuffer());
}

function paragraphsOf({ code, level, passages, passagesWithUnder, documents, examples }: CodebookRow): Paragraph[] {
  const under = passagesWithUnder > passages ? `, ${passagesWithUnder} with what is under it` : '';
  const labelled = (label: string, text: string): Paragraph[] =>
    text
      .split('\n')
      .map(
        (line, at) =>
          new Paragraph({ children: [...(at === 0 ? [new TextRun({ text: `${label}: `, bold: true })] : []), new TextRun(line)] }),
      );
  return [
    new Paragraph({
      heading: HEADINGS[Math.min(level, HEADINGS.length) - 1]!,
      children: [
        new TextRun({ text: code.mark, underline: { type: 'single', color: hexOf(codeColour(code.colour, 'light')).slice(1) } }),
        new TextRun(`  ${code.name}${code.retired ? ' (retired)' : ''}`),
      ],
    }),
    new Paragraph({ children: [new TextRun({ text: `${passages} passages in ${documents} documents${under}`, color: '51646A' })] }),
    ...DESCRIPTION_LABELS.flatMap(([key, label]) => (code[key] ? labelled(label, code[key]) : [])),
    ...examples.flatMap((one) => labelled('Passage', one)),
  ];
}
