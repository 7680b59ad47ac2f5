import { Document, HeadingLevel, Packer, Paragraph, TextRun } from 'docx';
import type { PrintedPassage } from '../html-out/answer-html';

/** An answer as a Word document, a heading a document. @param question what was asked, in words */
export async function answerDocx(title: string, question: string, passages: readonly PrintedPassage[]): Promise<Uint8Array> {
  const children = [
    new Paragraph({ text: title, heading: HeadingLevel.TITLE }),
    new Paragraph({ children: [new TextRun({ text: `${question}: ${passages.length} passages.`, color: '51646A' })] }),
  ];
  let document = '';
  for (const passage of passages) {
    if (passage.document !== document)
      children.push(new Paragraph({ text: (document = passage.document), heading: HeadingLevel.HEADING_2 }));
    const said = passage.words.split('\n').map((line, at) => new TextRun({ text: line, ...(at > 0 && { break: 1 }) }));
    children.push(
      new Paragraph({ children: said, spacing: { before: 120 } }),
      new Paragraph({
        children: [new TextRun({ text: [passage.where, ...passage.codes].filter(Boolean).join(' · '), size: 18, color: '51646A' })],
      }),
    );
    if (passage.comment) children.push(new Paragraph({ children: [new TextRun({ text: passage.comment, italics: true })] }));
  }
  const blob = await Packer.toBlob(new Document({ title, creator: 'Filum', sections: [{ children }] }));
  return new Uint8Array(await blob.arrayBuffer());
}
