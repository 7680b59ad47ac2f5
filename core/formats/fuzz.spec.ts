import { readFileSync, readdirSync } from 'node:fs';
import { seededRandom } from '../sample/large-study';
import { readFile } from './read-file';
import { UnreadableFileError } from './reading';
import { readTable } from './table/read-table';

/** Real files of each format; those of text formats are written here. */
function corpus(): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  for (const name of readdirSync('core/formats/fixtures'))
    if (!name.endsWith('.txt')) files.set(name, new Uint8Array(readFileSync(`core/formats/fixtures/${name}`)));
  const text = (name: string, content: string) => files.set(name, new TextEncoder().encode(content));
  text('plain.txt', '[00:00:01] Interviewer: And the thumb?\n[00:00:04] Shona: Rang the boat.\n\nNobody asked us.');
  text('marked.md', '# Interview\n\n**Shona:** *rang* the boat\n\n- one\n- two\n\n| a | b |\n|---|---|\n| 1 | 2 |\n');
  text('timed.vtt', 'WEBVTT\n\n00:01.000 --> 00:04.000\n<v Shona>Rang the boat.\n\n00:05.000 --> 00:06.000\n<v Shona>They held her.\n');
  text('timed.srt', '1\n00:00:01,000 --> 00:00:04,000\nRang the boat.\n\n2\n00:00:05,000 --> 00:00:06,000\nThey held her.\n');
  text(
    'mail.eml',
    'From: Shona <s@example.org>\nTo: Mara <m@example.org>\nSubject: The boat\nDate: Wed, 22 Jan 2025 10:00:00 +0000\nContent-Type: text/plain; charset=utf-8\n\nThey held her.\n\n> Did they?\n',
  );
  files.set('survey.csv', new Uint8Array(readFileSync('demo/survey.csv')));
  return files;
}

/** One of several ways in which files break: bytes changed, cut short, a stretch lost, doubled or shuffled in. */
function mutate(bytes: Uint8Array, random: () => number): Uint8Array {
  const at = () => Math.floor(random() * bytes.length);
  const [a, b] = [at(), at()].sort((x, y) => x - y) as [number, number];
  switch (Math.floor(random() * 5)) {
    case 0: {
      const changed = bytes.slice();
      for (let times = 1 + Math.floor(random() * 12); times > 0; times--) changed[at()] = Math.floor(random() * 256);
      return changed;
    }
    case 1:
      return bytes.slice(0, a);
    case 2:
      return Uint8Array.from([...bytes.subarray(0, a), ...bytes.subarray(b)]);
    case 3:
      return Uint8Array.from([...bytes.subarray(0, b), ...bytes.subarray(a)]);
    default: {
      const changed = bytes.slice();
      changed.copyWithin(a, at(), Math.min(bytes.length, at() + 400));
      return changed;
    }
  }
}

describe('files that broke on their way', () => {
  for (const [name, bytes] of corpus()) {
    it(`in the form of ${name} are read or refused in words, and never hang`, async () => {
      const random = seededRandom(name.length * 7919 + bytes.length);
      const isTable = /\.(csv|xlsx|ods)$/.test(name);
      const rounds = name.endsWith('.pdf') ? 12 : 30;
      // the libraries are loaded with the first file
      await (isTable ? readTable(name, bytes) : readFile(name, bytes));
      for (let round = 0; round < rounds; round++) {
        const broken = mutate(bytes, random);
        const begun = process.cpuUsage();
        try {
          if (isTable) expect((await readTable(name, broken)).rows.length).toBeGreaterThan(0);
          else expect((await readFile(name, broken)).paragraphs.length).toBeGreaterThan(0);
        } catch (error) {
          if (!(error instanceof UnreadableFileError))
            throw new Error(`round ${round} of ${name}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
          expect(error.message.length).toBeGreaterThan(15);
        }
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
