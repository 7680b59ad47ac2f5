import { importCodes } from '../../commands/import-codes';
import { addCodeSet } from '../../commands/code-sets';
import { editCode } from '../../commands/codes';
import { codebookCsv } from '../../formats/csv/codebook-csv';
import { codebookTable } from '../../formats/csv/codebook-csv';
import { codebookDocx } from '../../formats/docx-out/codebook-docx';
import { readDocx } from '../../formats/docx/read-docx';
import { codebookHtml } from '../../formats/html-out/codebook-html';
import { readQdc } from '../../formats/qdc/read-qdc';
import { writeQdc } from '../../formats/qdc/write-qdc';
import { readTable } from '../../formats/table/read-table';
import { writeXlsx } from '../../formats/xlsx/write-xlsx';
import { hexOf, nearestColour } from '../../model/colour-hex';
import { PALETTE_SIZE } from '../../model/code';
import { codeColour } from '../../model/palette';
import { checkStudy } from '../../integrity/check-study';
import { Bench } from '../../testing/make';
import { codebookRows } from '../codebook-rows';
import { oneDescription, partsOfDescription } from '../described';
import { inTreeOrder } from '../tree';
import { faultsOf, MOST_CODES, UNDESCRIBED, type ListedCodebook } from './listed-code';
import { planCodes, type Decision } from './plan-codes';
import { readCodeList } from './read-code-list';
import { guessCodeColumns, readCodeTable } from './read-code-table';

const bytes = (text: string) => new TextEncoder().encode(text);
const paths = (listed: ListedCodebook) => listed.codes.map((code) => code.path.join(' / '));
const table = async (csv: string) => {
  const read = await readTable('codes.csv', bytes(csv));
  return readCodeTable(read, guessCodeColumns(read.header));
};

function codebook(): Bench {
  const bench = new Bench();
  const top = bench.addCode('Feelings & <moods>');
  const worry = bench.addCode('Worry “at night”', top);
  bench.addCode('قلق', worry);
  bench.run(
    editCode(worry, {
      definition: 'Fear.\n\nTwo paragraphs.',
      useWhen: 'at night',
      doNotUseWhen: 'by day',
      example: '=1+1',
      notes: 'why?',
    }),
  );
  bench.run(addCodeSet('Night', [worry]));
  return bench;
}
const setOf = (bench: Bench) => (id: string) => bench.state.tables.codeSet[id]!.codeIds;
/** Takes everything over into an empty codebook. */
function takeOver(listed: ListedCodebook, bench = new Bench()): Bench {
  const planned = planCodes(bench.state.tables.code, listed);
  bench.run(
    importCodes(
      listed,
      planned,
      planned.map((): Decision => 'take'),
      'a file',
    ),
  );
  return bench;
}
const shape = (bench: Bench) =>
  inTreeOrder(bench.state.tables.code).map(({ code, level }) => [
    level,
    code.name,
    code.definition,
    code.useWhen,
    code.doNotUseWhen,
    code.example,
    code.notes ?? '',
    code.colour,
  ]);

describe('the exchange standard’s codebook', () => {
  it('comes back as it went out, with sets, in a study that knows nothing of it', () => {
    const bench = codebook();
    const listed = readQdc(bytes(writeQdc(bench.state, setOf(bench))));
    expect(listed.faults).toEqual([]);
    const other = takeOver(listed);
    expect(shape(other)).toEqual(shape(bench));
    const [set] = Object.values(other.state.tables.codeSet);
    expect([set!.name, set!.codeIds.map((id) => other.state.tables.code[id]!.name)]).toEqual(['Night', ['Worry “at night”']]);
    expect(checkStudy(other.state, null)).toEqual([]);
  });

  it('knows the codes it came from by their ids, and changes nothing where nothing has changed', () => {
    const bench = codebook();
    const listed = readQdc(bytes(writeQdc(bench.state, setOf(bench)).replace('Fear.', 'Dread.').replace('name="قلق"', 'name="خوف"')));
    const planned = planCodes(bench.state.tables.code, listed);
    expect(planned.map((one) => [one.status, one.differences.map(({ field }) => field)])).toEqual([
      ['same', []],
      ['changed', ['definition']],
      ['changed', ['name']],
    ]);
  });

  it('is refused in words when it is broken, of another kind, or with entities of its own', () => {
    const refuse = (xml: string, words: RegExp) => expect(() => readQdc(bytes(xml))).toThrowError(words);
    refuse('<CodeBook><Codes><Code guid="a" name="x"></Codes></CodeBook>', /broken: <Code> is opened and not closed/);
    refuse('<CodeBook></Codes></CodeBook>', /closes what was not opened/);
    refuse('<Project/>', /not a codebook of the exchange standard/);
    refuse('', /holds no XML/);
    refuse('<!DOCTYPE x [<!ENTITY a "b">]><CodeBook/>', /entities of its own/);
  });

  it('reports two codes of one place, ids that are there twice, and far too many', () => {
    const id = '00000000-0000-4000-8000-000000000001';
    const twice = readQdc(bytes(`<CodeBook><Codes><Code guid="${id}" name="A"/><Code guid="${id}" name="a"/></Codes></CodeBook>`));
    expect(twice.faults.length).toBe(2);
    const many = `<CodeBook><Codes>${Array.from({ length: 50_000 }, (_, n) => `<Code name="${n}"/>`).join('')}</Codes></CodeBook>`;
    expect(readQdc(bytes(many)).faults[0]).toMatch(/50,000 codes.*room for 20,000/);
    expect(readQdc(bytes(many)).codes).toEqual([]);
  });
});

describe('codes from a list', () => {
  it('nest by indentation or path, bullets aside, with definitions after a tab or a dash', () => {
    const listed = readCodeList(
      '- Feelings\tWhat is felt\n    - Worry — fear of the crossing\n\t\t* Night\n- Money / Fare\n1. Money / Tips',
    );
    expect(paths(listed)).toEqual(['Feelings', 'Feelings / Worry', 'Feelings / Worry / Night', 'Money', 'Money / Fare', 'Money / Tips']);
    expect(listed.codes.map((code) => code.definition)).toEqual(['What is felt', 'fear of the crossing', '', '', '', '']);
    expect(listed.faults).toEqual([]);
  });

  it('say which lines name the same code', () => {
    expect(readCodeList('Fare\nFog\nfare').faults[0]).toContain('in line 1 and line 3');
    expect(readCodeList(' \n').faults).toEqual(['There are no codes in the list.']);
  });
});

describe('codes from a table', () => {
  it('read back what was written as CSV and as a workbook', async () => {
    const bench = codebook();
    const rows = codebookRows(bench.state);
    const fromCsv = takeOver(await table(codebookCsv(rows)));
    expect(shape(fromCsv).map((row) => row.slice(0, 7))).toEqual(shape(bench).map((row) => row.slice(0, 7)));
    const workbook = await readTable('codes.xlsx', await writeXlsx([{ name: 'Codebook', rows: codebookTable(rows) }]));
    const fromBook = takeOver(readCodeTable(workbook, guessCodeColumns(workbook.header)));
    expect(shape(fromBook).map((row) => row.slice(0, 7))).toEqual(shape(bench).map((row) => row.slice(0, 7)));
  });

  it('nest by parent or by level', async () => {
    expect(paths(await table('code,parent\nFare,Money\nMoney,\nTip,Fare\n'))).toEqual(['Money / Fare', 'Money', 'Money / Fare / Tip']);
    expect(paths(await table('level,code\n1,Money\n2,Fare\n1,Fog\n'))).toEqual(['Money', 'Money / Fare', 'Fog']);
  });

  it('report cycles, unknown parents, double names and levels that fit nowhere, with their rows', async () => {
    expect((await table('code,parent\nA,B\nB,A\n')).faults[0]).toMatch(/lies under itself: .*A/);
    expect((await table('code,parent\nA,Nowhere\n')).faults).toEqual(['Row 2 puts “A” under “Nowhere”, which is not among the codes.']);
    expect((await table('code,parent\nA,\nA,\n')).faults[0]).toContain('row 2 and row 3');
    expect((await table('level,code\n1,A\n3,B\n')).faults[0]).toMatch(/Row 3 has the level “3”/);
  });
});

describe('taking codes over', () => {
  it('does for each code what was decided, in one step, and nothing while there are faults', () => {
    const bench = new Bench();
    const feelings = bench.addCode('Feelings');
    const worry = bench.addCode('Worry', feelings);
    bench.run(editCode(worry, { definition: 'Old.' }));
    const listed = readCodeList('Feelings\n  Worry\tNew.\n  Grief\nMoney\n  Worry\tOf money.');
    const planned = planCodes(bench.state.tables.code, listed);
    expect(planned.map((one) => one.status)).toEqual(['same', 'changed', 'new', 'new', 'conflict']);
    bench.run(importCodes(listed, planned, ['take', 'take', 'leave', 'take', 'beside'], 'a list'));
    const names = inTreeOrder(bench.state.tables.code).map(({ code }) => `${code.name}: ${code.definition}`);
    expect(names).toEqual(['Feelings: ', 'Worry: New.', 'Money: ', 'Worry: Of money.']);
    expect(new Set(Object.values(bench.state.tables.code).map((code) => code.mark)).size).toBe(4);
    const faulty = readCodeList('A\nA');
    expect(() => importCodes(faulty, planCodes({}, faulty), ['take', 'take'], 'x')(bench.state, bench.context())).toThrowError(
      /Nothing was taken over/,
    );
  });

  it('refuses decisions that would put a code under itself', () => {
    const bench = new Bench();
    const a = bench.addCode('A');
    bench.addCode('B', a);
    const listed = readCodeList('B\n  A');
    const planned = planCodes(bench.state.tables.code, listed);
    expect(() => importCodes(listed, planned, ['leave', 'take'], 'x')(bench.state, bench.context())).toThrowError(/under itself/);
  });

  it('takes thousands at once', () => {
    const listed: ListedCodebook = {
      codes: Array.from({ length: 5_000 }, (_, n) => ({
        ...UNDESCRIBED,
        path: n % 10 === 0 ? [`Category ${n}`] : [`Category ${n - (n % 10)}`, `Code ${n}`],
        row: n + 1,
      })),
      sets: [],
      faults: [],
      notes: [],
    };
    expect(Object.keys(takeOver(listed).state.tables.code).length).toBe(5_000);
    expect(
      faultsOf(
        Array.from({ length: MOST_CODES + 1 }, () => listed.codes[0]!),
        'row',
      ).length,
    ).toBe(1);
  });
});

describe('the codebook to be printed', () => {
  it('as Word holds a heading a code and all that is said of it', async () => {
    const { paragraphs } = await readDocx(await codebookDocx('Pier', codebookRows(codebook().state)));
    const lines = paragraphs.map((paragraph) => paragraph.text);
    expect(lines[0]).toBe('Pier: codebook');
    expect(lines.some((line) => line.endsWith('Worry “at night”'))).toBeTrue();
    expect(lines).toContain('Use when: at night');
  });

  it('as HTML shows every name as text', () => {
    const html = codebookHtml('<b>', codebookRows(codebook().state));
    expect(html).toContain('Feelings &amp; &lt;moods&gt;');
    expect(html).not.toContain('<moods>');
    expect(html).not.toContain('<script');
  });
});

describe('descriptions and colours on the way', () => {
  it('of all parts go into one text and come apart again', () => {
    const parts = { definition: 'Fear.\n\nMore.', useWhen: 'at night', doNotUseWhen: '', example: '“x”', notes: 'n' };
    expect(partsOfDescription(oneDescription(parts))).toEqual(parts);
    expect(partsOfDescription('Only this.').definition).toBe('Only this.');
  });

  it('of the palette are found again by their hex values, and known colours come out right', () => {
    for (let entry = 0; entry < PALETTE_SIZE; entry++) expect(nearestColour(hexOf(codeColour(entry, 'light')))).toBe(entry);
    expect(hexOf({ lightness: 1, chroma: 0, hue: 0 })).toBe('#FFFFFF');
    // sRGB red in OKLCH (CSS Color 4): 0.628 0.2577 29.23
    expect(hexOf({ lightness: 0.62796, chroma: 0.25768, hue: 29.234 })).toBe('#FF0000');
  });
});
