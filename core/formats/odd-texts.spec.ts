import { strToU8, zipSync } from 'fflate';
import { readFile, type ReadFile } from './read-file';
import { UnreadableFileError } from './reading';

const bytes = (text: string) => Uint8Array.from(text, (char) => char.charCodeAt(0));
const utf8 = (text: string) => new TextEncoder().encode(text);
const textsOf = ({ paragraphs }: ReadFile) => paragraphs.map((paragraph) => paragraph.text);

describe('rich text', () => {
  const rtf = (body: string) => readFile('a.rtf', bytes(`{\\rtf1\\ansi\\ansicpg1252\\uc1 ${body}}`));

  it('reads signs by their number with the fallback skipped, by code page and by name', async () => {
    expect(textsOf(await rtf("Caf\\'e9 \\u8212? \\u-10179?\\u-8704? caf\\u233\\'e9\\emdash  \\{so\\}\\par"))).toEqual([
      'Café — 😀 café— {so}',
    ]);
    expect(textsOf(await rtf("{\\fonttbl{\\f0 A;}{\\f1\\fcharset204 B;}}\\f1 \\'cf\\'f0\\'e8\\'e2\\'e5\\'f2\\f0  \\'e9\\par"))).toEqual([
      'Привет é',
    ]);
  });

  it('leaves out what is not text and keeps what is emphasised', async () => {
    const read = await rtf(
      '{\\info{\\title The boat}}{\\header Head\\par}One {\\b two} {\\i\\b three}{\\*\\secret x}{\\pict 00ff}\\par\\pard Last',
    );
    expect(textsOf(read)).toEqual(['One two three', 'Last']);
    expect(read.title).toBe('The boat');
    expect([...read.paragraphs[0]!.emphasis].sort((a, b) => a.start - b.start || (a.emphasis < b.emphasis ? -1 : 1))).toEqual([
      { start: 4, end: 7, emphasis: 'bold' },
      { start: 8, end: 13, emphasis: 'bold' },
      { start: 8, end: 13, emphasis: 'italic' },
    ]);
    expect(read.notes).toContain('1 picture left out');
  });

  it('goes on after a line that is broken in mid-sentence, and begins anew after others, as Word and OpenDocument do', async () => {
    const lines = ['My uncle held her', 'and sold her.', 'Shona: Did he?', 'He did.'];
    const expected = ['My uncle held her and sold her.', 'Shona: Did he?', 'He did.'];
    expect(textsOf(await rtf(`${lines.join('\\line ')}\\par`))).toEqual(expected);
    const content = `<office:document-content><office:body><office:text><text:p>${lines.join('<text:line-break/>')}</text:p></office:text></office:body></office:document-content>`;
    expect(textsOf(await readFile('a.odt', zipSync({ 'content.xml': strToU8(content) })))).toEqual(expected);
  });

  it('refuses nesting without end and other types', async () => {
    await expectAsync(rtf('{'.repeat(3_000))).toBeRejectedWithError(UnreadableFileError, /nested deeper/);
    await expectAsync(readFile('a.rtf', utf8('plain'))).toBeRejectedWithError(/not rich text/);
  });
});

describe('mail', () => {
  const mail = (body: string, head = '') =>
    readFile(
      'a.eml',
      utf8(
        `From: Shona Adair <s@example.org>\r\nTo: Mara <m@example.org>\r\nSubject: =?utf-8?q?Caf=C3=A9?=\r\nDate: Wed, 22 Jan 2025 10:00:00 +0000\r\n${head}\r\n${body}`,
      ),
    );

  it('says who wrote when, and tells quoted lines from new ones', async () => {
    const read = await mail('They held\r\nher.\r\n\r\n> Did they?\r\n> Really?\r\n');
    expect([read.title, read.date]).toEqual(['Café', '2025-01-22']);
    expect(textsOf(read)).toEqual(['They held her.', 'Did they? Really?']);
    expect(read.paragraphs.at(-1)!.style).toBe('quotation');
    expect(read.facts).toEqual([
      { name: 'from', value: 'Shona Adair <s@example.org>' },
      { name: 'to', value: 'Mara <m@example.org>' },
      { name: 'sent', value: '2025-01-22 10:00 UTC' },
    ]);
  });

  it('reads a message in HTML without running it, and names attachments', async () => {
    const body =
      '--b\r\nContent-Type: text/html\r\n\r\n<p>Words</p><script>alert(1)</script>\r\n--b\r\nContent-Type: application/pdf; name=x.pdf\r\nContent-Disposition: attachment; filename=x.pdf\r\n\r\nAAAA\r\n--b--\r\n';
    const read = await mail(body, 'MIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n');
    expect(textsOf(read).at(-1)).toBe('Words');
    expect(read.notes).toEqual(['attachments not read: x.pdf']);
  });

  it('refuses what is no message', async () => {
    await expectAsync(readFile('a.eml', utf8('just words'))).toBeRejectedWithError(UnreadableFileError, /not an e-mail/);
  });
});

describe('books and OpenDocument', () => {
  it('reads chapters in reading order, and refuses a locked book', async () => {
    const parts = {
      'META-INF/container.xml': strToU8('<container><rootfiles><rootfile full-path="O/c.opf"/></rootfiles></container>'),
      'O/c.opf': strToU8(
        '<package><metadata><dc:title>The Pier</dc:title></metadata><manifest><item id="a" href="a%20b.xhtml" media-type="application/xhtml+xml"/><item id="z" href="../z.xhtml" media-type="application/xhtml+xml"/></manifest><spine><itemref idref="z"/><itemref idref="a"/></spine></package>',
      ),
      'O/a b.xhtml': strToU8('<html><body><h1>Two</h1></body></html>'),
      'z.xhtml': strToU8('<html><body><p>One</p></body></html>'),
    };
    const book = await readFile('a.epub', zipSync(parts));
    expect([book.title, ...textsOf(book)]).toEqual(['The Pier', 'One', 'Two']);
    const locked = zipSync({ ...parts, 'META-INF/encryption.xml': strToU8('<e/>') });
    await expectAsync(readFile('a.epub', locked)).toBeRejectedWithError(/locked by its seller/);
  });

  it('sets a footnote behind its paragraph, and leaves out comments and deletions', async () => {
    const content =
      '<office:document-content><office:body><office:text><text:tracked-changes><text:p>gone</text:p></text:tracked-changes><text:p>Words<text:note><text:note-citation>1</text:note-citation><text:note-body><text:p>a note</text:p></text:note-body></text:note> go on<office:annotation><text:p>hm</text:p></office:annotation>.</text:p></office:text></office:body></office:document-content>';
    const read = await readFile('a.odt', zipSync({ 'content.xml': strToU8(content) }));
    expect(textsOf(read)).toEqual(['Words go on.', '[note] a note']);
    expect(read.notes).toEqual(['1 comment left out']);
  });
});
