import {
  CommentRangeEnd,
  CommentRangeStart,
  CommentReference,
  DeletedTextRun,
  Document,
  Header,
  HeadingLevel,
  InsertedTextRun,
  Packer,
  Paragraph,
  TextRun,
} from 'docx';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { readHtml } from './html/read-html';
import { readMarkdown } from './markdown/read-markdown';
import { decodeText } from './plain-text/encoding';
import { readPlainText } from './plain-text/read-plain-text';
import { readFile } from './read-file';
import { UnreadableFileError } from './reading';

const texts = (reading: { paragraphs: readonly { text: string }[] }) => reading.paragraphs.map((paragraph) => paragraph.text);
const failure = async (promise: Promise<unknown>): Promise<UnreadableFileError> =>
  promise.then(
    () => fail('was read'),
    (error: unknown) => error,
  ) as Promise<UnreadableFileError>;

async function wordFile(): Promise<Uint8Array> {
  const document = new Document({
    sections: [
      {
        children: [
          new Paragraph({ text: 'Interview with Shona', heading: HeadingLevel.HEADING_1 }),
          new Paragraph({
            children: [
              new TextRun('They '),
              new TextRun({ text: 'held', bold: true }),
              new TextRun({ text: ' the boat', italics: true }),
              new TextRun('.'),
            ],
          }),
          new Paragraph({ text: 'heater', bullet: { level: 0 } }),
          new Paragraph(''),
          new Paragraph({ text: '<script>alert(1)</script>' }),
        ],
      },
    ],
  });
  return new Uint8Array(await Packer.toBuffer(document));
}

describe('reading plain text', () => {
  it('takes lines for paragraphs and drops blank ones', () => {
    expect(texts(readPlainText('One.\r\n\r\nTwo.\n  \nThree.'))).toEqual(['One.', 'Two.', 'Three.']);
  });

  it('joins wrapped lines where blank lines separate paragraphs, and says so', () => {
    const wrapped =
      'This is a line that was wrapped by\nsome editor at a certain width and\ngoes on here.\n\nA second paragraph which is again\nwrapped over two lines of the text\nand a third.';
    const reading = readPlainText(wrapped);
    expect(reading.lineEnds).toBe('wrapped');
    expect(reading.paragraphs.length).toBe(2);
    expect(readPlainText(wrapped, 'paragraphs').paragraphs.length).toBe(6);
  });

  it('refuses empty and binary content', () => {
    expect(() => readPlainText(' \n\n ')).toThrowError(UnreadableFileError, /empty/);
    expect(() => readPlainText('PNG\u0000\u0001\u0002\u0003\u0000\u0000\u0001')).toThrowError(UnreadableFileError, /binary/);
  });
});

describe('encodings', () => {
  it('are told by their mark, or by the zeros of UTF-16', () => {
    expect(decodeText(new Uint8Array([0xff, 0xfe, 0x41, 0x00])).text).toBe('A');
    expect(decodeText(new Uint8Array([0x41, 0, 0x42, 0, 0x43, 0])).encoding).toBe('utf-16le');
    expect(decodeText(strToU8('Čau')).encoding).toBe('utf-8');
  });

  it('are used when named, and refused where they do not fit', () => {
    const latin = new Uint8Array([0x43, 0x61, 0x66, 0xe9]);
    expect(decodeText(latin, 'windows-1252').text).toBe('Café');
    expect(() => decodeText(latin, 'utf-8')).toThrowError(UnreadableFileError, /another encoding/);
    expect(() => decodeText(latin, 'klingon')).toThrowError(UnreadableFileError, /not known/);
  });
});

describe('reading Markdown and HTML', () => {
  it('keeps headings, lists, quotations and emphasis as formatting, and no signs in the text', () => {
    const { title, paragraphs } = readMarkdown('# Field note\n\nDark, **very** *dark*.\n\n- one\n- two\n\n> said he');
    expect(title).toBe('Field note');
    expect(paragraphs.map((paragraph) => [paragraph.style, paragraph.text])).toEqual([
      ['heading1', 'Field note'],
      ['body', 'Dark, very dark.'],
      ['list item', 'one'],
      ['list item', 'two'],
      ['quotation', 'said he'],
    ]);
    expect(paragraphs[1]!.emphasis).toEqual([
      { start: 6, end: 10, emphasis: 'bold' },
      { start: 11, end: 15, emphasis: 'italic' },
    ]);
  });

  it('leaves scripts, styles and pictures out and folds white space', () => {
    const reading = readHtml(
      '<script>steal()</script><p onclick="x()">One\n  two<br>three</p><style>p{}</style><img src=x onerror=alert(1)><p>A<b> B</b></p>',
    );
    expect(texts(reading)).toEqual(['One two', 'three', 'A B']);
    expect(reading.notes).toEqual(['1 picture left out']);
  });
});

describe('reading Word files', () => {
  it('keeps headings, emphasis and lists, and takes markup in the words for words', async () => {
    const read = await readFile('Shona.docx', await wordFile());
    expect(read.title).toBe('Interview with Shona');
    expect(read.paragraphs.map((paragraph) => [paragraph.style, paragraph.text])).toEqual([
      ['heading1', 'Interview with Shona'],
      ['body', 'They held the boat.'],
      ['list item', 'heater'],
      ['body', '<script>alert(1)</script>'],
    ]);
    expect(read.paragraphs[1]!.emphasis).toEqual([
      { start: 5, end: 9, emphasis: 'bold' },
      { start: 9, end: 18, emphasis: 'italic' },
    ]);
  });

  it('says what of the file is no part of its text, and takes looks from styles', async () => {
    const document = new Document({
      styles: { paragraphStyles: [{ id: 'Frage', name: 'Frage', run: { bold: true } }] },
      comments: { children: [{ id: 0, author: 'A', date: new Date(0), children: [new Paragraph('hm')] }] },
      sections: [
        {
          headers: { default: new Header({ children: [new Paragraph('Confidential')] }) },
          children: [
            new Paragraph({ style: 'Frage', children: [new TextRun('Who held her?')] }),
            new Paragraph({
              children: [
                new CommentRangeStart(0),
                new TextRun('My uncle'),
                new CommentRangeEnd(0),
                new TextRun({ children: [new CommentReference(0)] }),
                new DeletedTextRun({ text: ' sadly', id: 1, author: 'A', date: '2025-01-22T00:00:00Z' }),
                new InsertedTextRun({ text: ' did.', id: 2, author: 'A', date: '2025-01-22T00:00:00Z' }),
              ],
            }),
          ],
        },
      ],
    });
    const read = await readFile('a.docx', new Uint8Array(await Packer.toBuffer(document)));
    expect(texts(read)).toEqual(['Who held her?', 'My uncle did.']);
    expect(read.paragraphs[0]!.emphasis).toEqual([{ start: 0, end: 13, emphasis: 'bold' }]);
    expect(read.notes).toEqual([
      '1 comment left out',
      '1 tracked deletion left out',
      '1 tracked insertion is part of the text',
      'headers and footers left out',
    ]);
  });

  it('keeps words that stand in fields and after old line ends', async () => {
    const whole = unzipSync(await wordFile());
    const xml = strFromU8(whole['word/document.xml']!).replace(
      '<w:body>',
      '<w:body><w:p><w:fldSimple w:instr="DATE"><w:r><w:t>22 January</w:t></w:r></w:fldSimple><w:r><w:t xml:space="preserve">: Dark.</w:t><w:cr/><w:t>Light.</w:t></w:r></w:p>',
    );
    const read = await readFile('a.docx', zipSync({ ...whole, 'word/document.xml': strToU8(xml) }));
    expect(texts(read).slice(0, 2)).toEqual(['22 January: Dark.', 'Light.']);
  });

  it('says which other type is behind the ending', async () => {
    expect((await failure(readFile('a.docx', strToU8('%PDF-1.7')))).message).toContain('but a PDF');
    expect((await failure(readFile('a.docx', strToU8('just words, no archive')))).message).toContain('not a Word document');
    expect(
      (await failure(readFile('a.docx', zipSync({ mimetype: strToU8('application/vnd.oasis.opendocument.text') })))).message,
    ).toContain('OpenDocument');
    expect((await failure(readFile('a.docx', zipSync({ 'x.txt': strToU8('x') })))).message).toContain('holds no Word document');
    expect((await failure(readFile('a.txt', await wordFile()))).message).toContain('zip archive');
    expect((await failure(readFile('a.pptx', strToU8('x')))).message).toContain('.pptx cannot be read');
  });

  it('tells an encrypted file from an old one', async () => {
    const compound = (name: string) =>
      new Uint8Array([
        0xd0,
        0xcf,
        0x11,
        0xe0,
        0,
        0,
        0,
        0,
        ...new Uint8Array(new Uint16Array([...name].map((letter) => letter.charCodeAt(0))).buffer),
      ]);
    expect((await failure(readFile('a.docx', compound('EncryptedPackage')))).message).toContain('password');
    expect((await failure(readFile('a.docx', compound('WordDocument')))).message).toContain('old format');
  });

  it('refuses broken archives, bombs and empty files', async () => {
    const whole = await wordFile();
    expect((await failure(readFile('a.docx', whole.slice(0, whole.length / 2)))).message).toContain('cannot be unpacked');
    expect((await failure(readFile('a.docx', new Uint8Array()))).message).toContain('empty');
    const bomb = zipSync({ '[Content_Types].xml': strToU8('<x/>'), 'word/document.xml': new Uint8Array(60_000_000) });
    expect((await failure(readFile('a.docx', bomb))).message).toContain('zip bomb');
  });
});

describe('reading any file', () => {
  it('titles it by its name where it has no title, and knows its content by a check sum', async () => {
    const read = await readFile('03_Shona Adair.txt', strToU8('I: Yes?\nShona: No.\nI: So?\nShona: Well.'));
    expect(read.title).toBe('03 Shona Adair');
    expect(read.speakers.map((speaker) => speaker.name)).toEqual(['I', 'Shona']);
    expect(read.sha256).toBe((await readFile('other.txt', strToU8('I: Yes?\nShona: No.\nI: So?\nShona: Well.'))).sha256);
  });
});
