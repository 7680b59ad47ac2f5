import { Document, HeadingLevel, Packer, Paragraph, TextRun } from 'docx';

/** A line of the log: its day as `YYYY-MM-DD`, who, and what. */
export interface LogLine {
  readonly day: string;
  readonly coder: string;
  readonly kind: string;
  readonly text: string;
}

/** The log as a Word document, a heading a day. @param rows the oldest first */
export async function logDocx(title: string, rows: readonly LogLine[]): Promise<Uint8Array> {
  const children = [new Paragraph({ text: `${title}: log`, heading: HeadingLevel.TITLE })];
  let day = '';
  for (const row of rows) {
    if (row.day !== day) children.push(new Paragraph({ text: (day = row.day), heading: HeadingLevel.HEADING_2 }));
    const own = row.kind === 'own entry';
    children.push(
      new Paragraph({ children: [new TextRun({ text: `${row.coder} `, bold: true }), new TextRun({ text: row.text, italics: own })] }),
    );
  }
  const blob = await Packer.toBlob(new Document({ title: `${title}: log`, creator: 'Filum', sections: [{ children }] }));
  return new Uint8Array(await blob.arrayBuffer());
}
