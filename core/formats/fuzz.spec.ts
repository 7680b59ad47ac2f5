import { seededRandom } from '../sample/large-study';
import { broken, brokenInside, realFiles } from '../testing/broken-files';
import { outcomeOf } from '../testing/file-outcome';
import { readFile } from './read-file';
import { UnreadableFileError } from './reading';
import { readTable } from './table/read-table';

describe('files that broke on their way', () => {
  for (const [name, bytes] of realFiles()) {
    it(`in the form of ${name} are read, sound, or refused in words, and never hang`, async () => {
      const random = seededRandom(name.length * 7919 + bytes.length);
      const rounds = name.endsWith('.pdf') ? 12 : 30;
      // the libraries are loaded with the first file
      expect(await outcomeOf(name, bytes)).toBe('read');
      for (let round = 0; round < rounds; round++) {
        const begun = process.cpuUsage();
        const file = round % 2 ? brokenInside(bytes, random) : broken(bytes, random);
        await outcomeOf(name, file).catch((error: unknown) => {
          throw new Error(`round ${round} of ${name}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
        });
        // two seconds of computing are the most that a file may take, however busy the machine is
        const { user, system } = process.cpuUsage(begun);
        expect((user + system) / 1e6)
          .withContext(`seconds of round ${round} of ${name}`)
          .toBeLessThan(2);
      }
    }, 120_000);
  }
});

describe('hostile files', () => {
  const html = (content: string) => readFile('page.html', new TextEncoder().encode(content));

  it('run no script and fetch nothing: only words are left', async () => {
    const read = await html(
      '<html><head><title>T</title><script>alert(1)</script></head><body onload="x()"><nav>Menu</nav><main><p>One <b>two</b><img src="http://example.org/x.png" onerror="y()"></p><iframe src="http://example.org"></iframe><p>Three &lt;script&gt;</p></main><footer>Foot</footer></body></html>',
    );
    expect(read.paragraphs.map((paragraph) => paragraph.text)).toEqual(['One two', 'Three <script>']);
    expect(read.notes).toEqual(['1 picture left out', '1 paragraph around the content left out (menus, headers, footers)']);
  });

  it('define no entities in XML', async () => {
    const { zipSync, strToU8 } = await import('fflate');
    const bomb =
      '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "ha"><!ENTITY b SYSTEM "file:///etc/passwd">]><office:document-content>&b;</office:document-content>';
    const odt = zipSync({ mimetype: strToU8('application/vnd.oasis.opendocument.text'), 'content.xml': strToU8(bomb) });
    await expectAsync(readFile('bad.odt', odt)).toBeRejectedWithError(UnreadableFileError, /entities of its own/);
  });

  it('ask for no more rows than they hold', async () => {
    const { zipSync, strToU8 } = await import('fflate');
    const content =
      '<office:document-content><office:spreadsheet><table:table table:name="s"><table:table-row><table:table-cell><text:p>name</text:p></table:table-cell></table:table-row><table:table-row table:number-rows-repeated="1048576"><table:table-cell table:number-columns-repeated="16384"/></table:table-row><table:table-row><table:table-cell><text:p>Moira</text:p></table:table-cell></table:table-row></table:table></office:spreadsheet></office:document-content>';
    const table = await readTable('a.ods', zipSync({ 'content.xml': strToU8(content) }));
    expect([table.header, table.rows]).toEqual([['name'], [['Moira']]]);
    const greedy = content.replace(
      'number-rows-repeated="1048576"><table:table-cell table:number-columns-repeated="16384"/>',
      'number-rows-repeated="1048576"><table:table-cell><text:p>x</text:p></table:table-cell>',
    );
    await expectAsync(readTable('a.ods', zipSync({ 'content.xml': strToU8(greedy) }))).toBeRejectedWithError(/more than the 200,000 rows/);
  });
});
