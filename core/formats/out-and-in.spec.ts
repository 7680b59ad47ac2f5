import fc from 'fast-check';
import { importCodes } from '../commands/import-codes';
import { importMemos } from '../commands/import-memos';
import { codebookRows } from '../codebook/codebook-rows';
import type { ListedCodebook } from '../codebook/exchange/listed-code';
import { planCodes } from '../codebook/exchange/plan-codes';
import { guessCodeColumns, readCodeTable } from '../codebook/exchange/read-code-table';
import { inTreeOrder } from '../codebook/tree';
import type { ListedMemo } from '../memos/exchange/listed-memo';
import { memosFromMarkdown, memosMarkdown } from '../memos/exchange/memo-markdown';
import { memosFromTable, memoTable } from '../memos/exchange/memo-table';
import type { Code } from '../model/code';
import { sequentialIds, type Id } from '../model/ids';
import type { Memo } from '../model/memo';
import { Bench } from '../testing/make';
import { normaliseText, tidyLine } from '../text/normalise';
import { codebookTable } from './csv/codebook-csv';
import { writeCsv } from './csv/write-csv';
import { readQdc } from './qdc/read-qdc';
import { writeQdc } from './qdc/write-qdc';
import { readTable } from './table/read-table';
import { writeXlsx } from './xlsx/write-xlsx';

/** Names with every sign that some format uses for itself. */
const piece = fc.constantFrom(
  'Fare',
  'ferry',
  '/',
  ' / ',
  '\\',
  "'",
  '"',
  ';',
  ',',
  '#',
  '=',
  '-',
  '+',
  '@',
  ' ',
  '\t',
  '|',
  'é',
  '渡',
  '🙂',
  'ا',
  '<b>',
  '&',
  '*',
  '1',
  '---',
  '# x',
  '[a](b)',
  '->',
  '-->',
);
const line = fc
  .array(piece, { minLength: 1, maxLength: 6 })
  .map((parts) => tidyLine(parts.join('')))
  .filter((name) => name !== '' && name.length < 400);
const prose = fc
  .array(
    fc.oneof(piece, fc.constantFrom('\n', '\n\n', 'a sentence. ', '## y', '<!-- memo: {} -->', '\\<!-- entry: {"a":1} -->', '---\n\n# z')),
    { maxLength: 9 },
  )
  .map((parts) => normaliseText(parts.join('')).trim());
const BYTES = new TextEncoder();
const asCsv = async (rows: readonly (readonly (string | number)[])[]) =>
  readTable('x.csv', BYTES.encode(writeCsv(rows)), { headerRow: 'first' });
const asBook = async (rows: readonly (readonly (string | number)[])[]) =>
  readTable('x.xlsx', await writeXlsx([{ name: 'x', rows }]), { headerRow: 'first' });

describe('a codebook taken out and brought in again', () => {
  const code = fc.record({
    name: line,
    under: fc.nat(4),
    definition: prose,
    useWhen: prose,
    notes: prose,
    colour: fc.nat(39),
    retired: fc.boolean(),
  });
  const codebook = fc.array(code, { minLength: 1, maxLength: 8 }).map((wanted): Readonly<Record<Id, Code>> => {
    const newId = sequentialIds(5);
    const codes: Code[] = [];
    for (const { name, under, retired, ...rest } of wanted) {
      const parentId = codes[under]?.id ?? null;
      if (codes.some((one) => one.parentId === parentId && one.name.toLowerCase() === name.toLowerCase())) continue;
      const order = codes.length + 1;
      codes.push({
        id: newId(),
        name,
        mark: `c${order}`,
        parentId,
        order,
        doNotUseWhen: '',
        example: '',
        ...rest,
        ...(retired && { retired: true as const }),
        createdAt: 1,
        coderId: newId(),
      });
    }
    return Object.fromEntries(codes.map((one) => [one.id, one]));
  });
  const stateWith = (codes: Readonly<Record<Id, Code>>) => {
    const { state } = new Bench();
    return { ...state, tables: { ...state.tables, code: codes } };
  };
  const shape = (codes: Readonly<Record<Id, Code>>) =>
    inTreeOrder(codes).map(({ code: one, level }) => [
      level,
      one.name,
      one.mark,
      one.definition,
      one.useWhen,
      one.notes ?? '',
      one.colour,
      one.retired ?? false,
    ]);
  const takenOver = (listed: ListedCodebook) => {
    expect(listed.faults).toEqual([]);
    const bench = new Bench();
    const planned = planCodes({}, listed);
    bench.run(
      importCodes(
        listed,
        planned,
        planned.map(() => 'take'),
        'x',
      ),
    );
    return bench.state.tables.code;
  };

  it('is the same by table, as text or workbook, names with slashes and retired codes among them', async () => {
    await fc.assert(
      fc.asyncProperty(codebook, async (codes) => {
        const rows = codebookTable(codebookRows(stateWith(codes)));
        for (const table of [await asCsv(rows), await asBook(rows)])
          expect(shape(takenOver(readCodeTable(table, guessCodeColumns(table.header))))).toEqual(shape(codes));
      }),
      { numRuns: 40 },
    );
  });

  it('is the same by the exchange standard, but for what that cannot say', () => {
    fc.assert(
      fc.property(codebook, (codes) => {
        const { tables } = stateWith(codes);
        const listed = readQdc(BYTES.encode(writeQdc({ tables }, () => [])));
        const said = (rows: unknown[][]) =>
          rows.map(([level, name, , definition, useWhen, notes, colour]) => [level, name, definition, useWhen, notes, colour]);
        expect(said(shape(takenOver(listed)))).toEqual(said(shape(codes)));
      }),
      { numRuns: 40 },
    );
  });
});

describe('memos taken out and brought in again', () => {
  const entry = fc.record({ text: prose.filter((text) => text !== ''), writtenAt: fc.nat(2_000_000_000), edited: fc.boolean() });
  const memo = fc.record({
    title: line,
    kind: fc.constantFrom('analytic', 'a; kind', 'méthode'),
    tags: fc.uniqueArray(line, { maxLength: 3, selector: (tag) => tag.toLowerCase() }),
    question: fc.constantFrom('open', 'answered', undefined),
    pinned: fc.boolean(),
    archived: fc.boolean(),
    entries: fc.uniqueArray(entry, { maxLength: 3, selector: (one) => one.writtenAt }),
  });
  const study = fc.array(memo, { minLength: 1, maxLength: 4 }).map((wanted) => {
    const bench = new Bench();
    const codeId = bench.addCode('Fare');
    const memos = wanted.map(({ question, pinned, archived, tags, entries, ...rest }, at): Memo => ({
      id: bench.newId(),
      ...rest,
      about: at % 2 === 0 ? { type: 'code', id: codeId } : null,
      ...(tags.length > 0 && { tags }),
      ...(question && { question }),
      ...(pinned && { pinned: true as const }),
      ...(archived && { archived: true as const }),
      createdAt: 5,
      entries: entries
        .sort((a, b) => a.writtenAt - b.writtenAt)
        .map(({ text, writtenAt, edited }) => ({
          id: bench.newId(),
          text,
          writtenAt,
          coderId: bench.coderId,
          ...(edited && { editedAt: writtenAt + 9 }),
        })),
    }));
    return { bench, memos };
  });
  const shape = (memos: readonly Memo[]) =>
    memos.map(({ entries, id: _id, createdAt: _at, ...head }) => ({ ...head, entries: entries.map(({ id: _entry, ...rest }) => rest) }));
  /** Taken into the study they came from, which has no memos any more. */
  const takenIn = (bench: Bench, listed: readonly ListedMemo[]) => {
    const before = bench.state;
    bench.run(importMemos(listed, 'x'));
    const memos = Object.values(bench.state.tables.memo);
    // a second time nothing is new
    expect(bench.run(importMemos(listed, 'x'))).toBeNull();
    bench.state = before;
    return shape(memos);
  };

  it('are the same by table, as text or workbook, also several of one title', async () => {
    await fc.assert(
      fc.asyncProperty(study, async ({ bench, memos }) => {
        const rows = memoTable(bench.state, memos);
        for (const table of [await asCsv(rows), await asBook(rows)])
          expect(takenIn(bench, memosFromTable(table, 'x'))).toEqual(shape(memos));
      }),
      { numRuns: 40 },
    );
  });

  it('are the same by Markdown, whatever their texts hold', () => {
    fc.assert(
      fc.property(study, ({ bench, memos }) => {
        expect(takenIn(bench, memosFromMarkdown('x.md', memosMarkdown(bench.state, memos), 7))).toEqual(shape(memos));
      }),
      { numRuns: 150 },
    );
  });
});
