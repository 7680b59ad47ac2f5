import Papa from 'papaparse';
import fc from 'fast-check';
import { Bench } from '../../testing/make';
import { codebookRows } from '../../codebook/codebook-rows';
import { codebookCsv } from './codebook-csv';
import { codingsCsv } from './codings-csv';
import { unguarded } from './formula-guard';
import { writeCsv } from './write-csv';

const parse = (csv: string) => Papa.parse<string[]>(csv.replace(/^\uFEFF/, ''), { skipEmptyLines: true }).data;

describe('writing CSV', () => {
  it('reads back cell by cell, whatever is in the cells', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.string(), fc.string()), { minLength: 1 }), (rows) => {
        const back = Papa.parse<string[]>(writeCsv(rows).slice(1), { delimiter: ',' }).data.slice(0, rows.length);
        expect(back.map((row) => row.map(unguarded))).toEqual(rows);
        for (const cell of back.flat()) expect(cell).not.toMatch(/^[=+\-@\t\r]/);
      }),
    );
  });

  it('keeps spreadsheets from running a cell, and numbers as they are', () => {
    expect(parse(writeCsv([['=HYPERLINK("x")', '+1', '@a', '-cmd', -5, 'plain']]))[0]).toEqual([
      '\'=HYPERLINK("x")',
      "'+1",
      "'@a",
      "'-cmd",
      '-5',
      'plain',
    ]);
  });
});

describe('the codings as a table', () => {
  it('has one row a coding with document, speaker, place, words, parents, coder, time and comment', () => {
    const bench = new Bench();
    const document = bench.addDocument('Interview 01', ['I: Yes?', 'Moira: Nobody asked us.'], ['I', 'Moira']);
    const category = bench.addCode('Decision');
    const code = bench.addCode('Asked, or not', category);
    const start = 'I: Yes?\nMoira: '.length;
    bench.code(document, start, start + 6, code, category);
    bench.code(document, start, start + 10);
    const [head, ...rows] = parse(codingsCsv(bench.state, [document.id], (id) => bench.texts.get(id)!));
    expect(head).toEqual([
      'document',
      'case',
      'speaker',
      'position',
      'start',
      'end',
      'text',
      'code',
      'parents',
      'coder',
      'time',
      'rating',
      'comment',
    ]);
    expect(rows.map((row) => [row[2], row[3], row[6], row[7], row[8], row[9]])).toEqual([
      ['Moira', 'turn 2', 'Nobody ask', '', '', 'Ada'],
      ['Moira', 'turn 2', 'Nobody', 'Asked, or not', 'Decision', 'Ada'],
      ['Moira', 'turn 2', 'Nobody', 'Decision', '', 'Ada'],
    ]);
    expect(rows[1]!.slice(4, 6)).toEqual([String(start), String(start + 6)]);
  });
});

describe('the codebook as a table', () => {
  it('lists the tree in order with level, parents and counts', () => {
    const bench = new Bench();
    const document = bench.addDocument('One', ['Some words.']);
    const top = bench.addCode('Top');
    const under = bench.addCode('Under', top);
    bench.code(document, 0, 4, under);
    const rows = parse(codebookCsv(codebookRows(bench.state))).slice(1);
    expect(rows.map((row) => [row[0], row[1], row[2], row[10], row[11]])).toEqual([
      ['Top', '', '1', '0', '1'],
      ['Under', 'Top', '2', '1', '1'],
    ]);
  });
});
