import { strToU8, zipSync } from 'fflate';
import { readFile } from './read-file';
import { UnreadableFileError } from './reading';
import { readTable } from './table/read-table';

/** Files that are made to take a reader down, each small. */
describe('hostile files', () => {
  const failure = (reading: Promise<unknown>): Promise<string> =>
    reading.then(
      () => 'it was read',
      (error: unknown) => (error instanceof UnreadableFileError ? error.message : `not a clear error: ${String(error)}`),
    );
  const word = (document: string, more: Record<string, string> = {}): Uint8Array =>
    zipSync({
      '[Content_Types].xml': strToU8(
        '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/><Override PartName="/word/footnotes.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.footnotes+xml"/></Types>',
      ),
      '_rels/.rels': strToU8(
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
      ),
      'word/_rels/document.xml.rels': strToU8(
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r2" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/footnotes" Target="footnotes.xml"/></Relationships>',
      ),
      'word/document.xml': strToU8(
        `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${document}</w:body></w:document>`,
      ),
      ...Object.fromEntries(Object.entries(more).map(([name, text]) => [name, strToU8(text)])),
    });
  const workbook = (sheet: string): Uint8Array =>
    zipSync({
      '[Content_Types].xml': strToU8('<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>'),
      'xl/workbook.xml': strToU8(
        '<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="One" sheetId="1" r:id="r1"/></sheets></workbook>',
      ),
      'xl/_rels/workbook.xml.rels': strToU8(
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
      ),
      'xl/worksheets/sheet1.xml': strToU8(
        `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${sheet}</sheetData></worksheet>`,
      ),
    });
  const cell = (at: string, value: string): string => `<c r="${at}" t="inlineStr"><is><t>${value}</t></is></c>`;

  it('a value at the far corner of a sheet is named by its cell, and nothing is made of the room up to it', async () => {
    const near = `<row r="1">${cell('A1', 'name')}${cell('B1', 'age')}</row><row r="2">${cell('A2', 'Shona')}${cell('B2', '44')}</row>`;
    expect((await readTable('a.xlsx', workbook(near))).rows).toEqual([['Shona', '44']]);
    const corner = `${near}<row r="1048576">${cell('XFD1048576', 'x')}</row>`;
    expect(await failure(readTable('a.xlsx', workbook(corner)))).toContain('in cell XFD1048576, far from the others');
    const scattered = `${near}<row r="150000">${cell('ALL150000', 'x')}</row>`;
    expect(await failure(readTable('a.xlsx', workbook(scattered)))).toContain('in cell ALL150000');
  });

  it('filled rows that repeat are counted before they are made', async () => {
    const content = (rows: number, columns: number): Uint8Array =>
      zipSync({
        'content.xml': strToU8(
          `<office:document-content xmlns:office="o" xmlns:table="t" xmlns:text="x"><office:body><office:spreadsheet><table:table table:name="One"><table:table-row table:number-rows-repeated="${rows}"><table:table-cell table:number-columns-repeated="${columns}"><text:p>x</text:p></table:table-cell></table:table-row></table:table></office:spreadsheet></office:body></office:document-content>`,
        ),
      });
    expect(await failure(readTable('a.ods', content(150_000, 900)))).toContain('135,000,000 cells');
    expect((await readTable('a.ods', content(20, 3), { headerRow: null })).rows.length).toBe(20);
  });

  it('a chapter that a book names thousands of times is read once', async () => {
    const item = '<item id="c" href="c.xhtml" media-type="application/xhtml+xml"/>';
    const book = zipSync({
      'META-INF/container.xml': strToU8('<container><rootfiles><rootfile full-path="book.opf"/></rootfiles></container>'),
      'book.opf': strToU8(`<package><manifest>${item}</manifest><spine>${'<itemref idref="c"/>'.repeat(5_000)}</spine></package>`),
      'c.xhtml': strToU8('<html><body><p>They held her.</p></body></html>'),
    });
    const read = await readFile('a.epub', book);
    expect(read.paragraphs.map((one) => one.text)).toEqual(['They held her.']);
    expect(read.notes.join()).toContain('more than once are read once');
  });

  it('a footnote that contains itself is read once', async () => {
    const note = (id: number, inner: string): string =>
      `<w:footnote w:id="${id}"><w:p><w:r><w:t>It was late.</w:t></w:r>${inner}</w:p></w:footnote>`;
    const reference = '<w:r><w:footnoteReference w:id="2"/></w:r>';
    const file = word(`<w:p><w:r><w:t>They held her.</w:t></w:r>${reference}</w:p>`, {
      'word/footnotes.xml': `<w:footnotes xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">${note(2, reference)}</w:footnotes>`,
    });
    expect((await readFile('a.docx', file)).paragraphs.map((one) => one.text)).toEqual(['They held her.[1]', '[1] It was late.[2]']);
  });

  it('thousands of quotation marks are refused in words', async () => {
    expect(await failure(readFile('a.md', strToU8(`Words.\n\n${'>'.repeat(20_000)} deep`)))).toContain('Line 3 is nested deeper');
    expect(await failure(readFile('a.md', strToU8(`${'> '.repeat(20_000)} deep`)))).toContain('nested deeper');
    expect((await readFile('a.md', strToU8('> > > deep'))).paragraphs[0]!.text).toBe('deep');
  });

  it('elements in each other by the thousand are refused in words, and some hundreds are read', async () => {
    expect(await failure(readFile('a.html', strToU8('<div><b>x'.repeat(50_000))))).toContain('nested deeper than any real page');
    const read = await readFile('a.html', strToU8(`${'<blockquote><b>x'.repeat(500)}${'</b></blockquote>'.repeat(500)}<p>end</p>`));
    expect([read.paragraphs.length, read.paragraphs[499]!.style, read.paragraphs[500]!.style]).toEqual([501, 'quotation', 'body']);
    expect([read.paragraphs[0]!.emphasis.length, read.paragraphs[500]!.emphasis.length]).toEqual([1, 0]);
  });

  it('no words of a library reach the reader', async () => {
    const broken = [
      ['a.docx', word('<w:p><w:r><w:t>no end')],
      ['a.docx', zipSync({ '[Content_Types].xml': strToU8('<a'), 'word/document.xml': strToU8('\u0000') })],
      ['a.xlsx', workbook('<row><c r="A1" t="s"><v>99</v></c>')],
      ['a.pdf', strToU8('%PDF-1.7\n1 0 obj\n<< /Type /Catalog >>\nendobj\ntrailer << /Root 9 0 R >>')],
      ['a.eml', strToU8('Content-Type: multipart/mixed; boundary=x\n\n--x\n')],
      ['a.docx', word('x').slice(0, 400)],
    ] as const;
    for (const [name, bytes] of broken) {
      const said = await failure(name.endsWith('xlsx') ? readTable(name, bytes) : readFile(name, bytes));
      expect(said)
        .withContext(name)
        .not.toMatch(/undefined|null|Error|invalid|mammoth|unexpected|parser|not a function|stack|not a clear error/i);
      expect(said)
        .withContext(name)
        .toMatch(/\. [A-Z]|it was read/);
    }
  });

  /**
   * How much more work eight times as much makes: eight where it grows with the length, sixty-four where with its square. Measured in
   * the processor's time of this process, which other work on the machine does not lengthen; the least of a few tries, since nothing
   * makes a square look straight but a pause to collect garbage makes a straight line look crooked.
   */
  const growth = async (read: (times: number) => Promise<unknown>, times: number): Promise<number> => {
    const cost = async (many: number): Promise<number> => {
      const begun = process.cpuUsage();
      await read(many).catch(() => undefined);
      const { user, system } = process.cpuUsage(begun);
      return (user + system) / 1000;
    };
    await cost(times);
    let least = Infinity;
    for (let tries = 0; tries < 3 && least >= MOST_GROWTH; tries++)
      least = Math.min(least, (await cost(times * 8)) / Math.max(4, await cost(times)));
    return least;
  };
  /** Between eight and sixty-four, with room for memory that grows out of the processor's caches. */
  const MOST_GROWTH = 30;

  const endless: readonly (readonly [name: string, what: string, file: (times: number) => Uint8Array, times: number])[] = [
    ['a.txt', 'blanks', (times) => strToU8(`A${' '.repeat(times)}b`), 20_000],
    ['a.txt', 'capitals', (times) => strToU8('A B '.repeat(times)), 20_000],
    ['a.txt', 'lines of blanks', (times) => strToU8('x\n \t'.repeat(times)), 10_000],
    ['a.txt', 'brackets', (times) => strToU8('['.repeat(times)), 20_000],
    ['a.txt', 'names that come once', (times) => strToU8(Array.from({ length: times }, (_, at) => `N${at}: yes`).join('\n')), 1_500],
    ['a.txt', 'clocks', (times) => strToU8('[00:'.repeat(times)), 20_000],
    ['a.txt', 'bytes of an old encoding', (times) => new Uint8Array(times).fill(0xe9), 40_000],
    ['a.html', 'style sheets that do not end', (times) => strToU8(`${'<style>'.repeat(times)}.a{display:none}</style><p>x</p>`), 5_000],
    ['a.html', 'hidden elements', (times) => strToU8(`${'<p hidden>x'.repeat(times)}</p><p>y</p>`), 2_000],
    ['a.md', 'signs of emphasis', (times) => strToU8('*a '.repeat(times)), 1_500],
    ['a.md', 'links that do not end', (times) => strToU8('[a]('.repeat(times)), 800],
    ['a.md', 'fields within fields', (times) => strToU8(`---\na: ${'['.repeat(times)}\n---\nx`), 2_000],
    ['a.html', 'pieces of one paragraph', (times) => strToU8(`<p>${'<b>word</b> and <i>other</i> '.repeat(times)}`), 2_000],
    ['a.html', 'cells of one row', (times) => strToU8(`<table><tr>${'<td>x</td>'.repeat(times)}`), 3_000],
    ['a.rtf', 'groups', (times) => strToU8(`{\\rtf1 ${'{\\b x}'.repeat(times)}}`), 3_000],
    ['a.eml', 'quoted lines', (times) => strToU8(`From: a@b.example\nSubject: x\n\n${'> x\n'.repeat(times)}`), 3_000],
    [
      'a.docx',
      'pieces of one paragraph',
      (times) => word(`<w:p>${'<w:r><w:rPr><w:b/></w:rPr><w:t>word </w:t></w:r><w:r><w:t>x </w:t></w:r>'.repeat(times)}</w:p>`),
      800,
    ],
  ];
  for (const [name, what, file, times] of endless)
    it(`${what} (${name}) are read in time that grows with their number`, async () => {
      expect(await growth((many) => readFile(name, file(many)), times)).toBeLessThan(MOST_GROWTH);
    });
});
