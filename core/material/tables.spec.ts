import { readFileSync } from 'node:fs';
import { applyChange } from '../change/apply';
import { added } from '../change/change';
import { checkStudy } from '../integrity/check-study';
import { asPlanned } from '../commands/attributes';
import { guessRoles, type Column } from '../formats/table/guess-roles';
import { readTable } from '../formats/table/read-table';
import type { Table } from '../formats/table/table';
import { UnreadableFileError } from '../formats/reading';
import { Bench } from '../testing/make';
import { codePlace } from '../commands/passages';
import { unpackPassages } from '../passages/columns';
import { answerUpdates, updateAnswers } from './answer-updates';
import { planTable, type TableChoices } from './plan-table';

const bytes = (text: string) => new TextEncoder().encode(text);
const file = (path: string) => new Uint8Array(readFileSync(path));
const rolesOf = (columns: readonly Column[]) =>
  Object.fromEntries(columns.map((column) => [column.name, column.role === 'attribute' ? column.type : column.role]));

describe('reading tables', () => {
  it('gives the same rows from text, Excel and OpenDocument', async () => {
    const csv = await readTable('survey.csv', file('demo/survey.csv'));
    expect([csv.header.length, csv.rows.length, csv.delimiter, csv.headerRow]).toEqual([12, 48, ',', 1]);
    for (const ending of ['xlsx', 'ods']) {
      const other = await readTable(`survey.${ending}`, file(`core/formats/fixtures/survey.${ending}`));
      expect(other.header).toEqual(csv.header);
      expect(other.rows).toEqual(csv.rows);
    }
  });

  it('finds delimiter and header, and can be told otherwise', async () => {
    const semicolons = await readTable('a.csv', bytes('name;age\n"Moira; T";58\nIain;61\n'));
    expect([semicolons.delimiter, semicolons.header, semicolons.rows]).toEqual([
      ';',
      ['name', 'age'],
      [
        ['Moira; T', '58'],
        ['Iain', '61'],
      ],
    ]);
    const bare = await readTable('a.csv', bytes('Moira,58\nIain,61\n'));
    expect([bare.headerRow, bare.header, bare.rows.length]).toEqual([null, ['Column 1', 'Column 2'], 2]);
    expect((await readTable('a.csv', bytes('x,y\n1,2\n3,4\n'), { headerRow: null })).rows.length).toBe(3);
    expect((await readTable('a.tsv', bytes('a\ta\n1\t2\n'))).header).toEqual(['a', 'a (2)']);
  });

  it('takes signs for no value as missing and not as a type, counts them by column, and more where the researcher says so', async () => {
    const rows = ['44,n/a,1961-04-02,yes', '99,-,No Answer,.', '61,3,1958-11-30,no', '9,99,.,NA'];
    const table = await readTable('a.csv', bytes(`id,age,boats,date of birth,car\n${rows.map((row, at) => `R${at},${row}`).join('\n')}\n`));
    const columns = guessRoles(table);
    expect(rolesOf(columns)).toEqual({ id: 'identifier', age: 'number', boats: 'number', 'date of birth': 'date', car: 'yes/no' });
    const planned = (missing: readonly string[]) =>
      planTable(
        table,
        {
          columns: columns.map((column) => (column.name === 'age' ? { ...column, missing } : column)),
          rowsBecome: 'cases only',
          kind: 'survey answers',
          folderId: null,
          source: null,
          keep: new Set(),
        },
        new Bench().state,
        new Bench(9).newId,
        0,
      );
    expect(planned([]).missing).toEqual([0, 0, 2, 2, 2]);
    expect(planned([]).misfits).toEqual([]);
    const { missing, change } = planned(['99']);
    expect(missing).toEqual([0, 1, 2, 2, 2]);
    const ages = change.flatMap((one) =>
      one.type === 'case' ? [Object.values(one.after!.values).filter((value) => value === 99 || value === 44)] : [],
    );
    // 99 is missing as an age, and ninety-nine boats are boats
    expect(ages).toEqual([[44], [], [], [99]]);
  });

  it('finds the row that names the columns under a title, notes and blank rows, and shows what it passes over', async () => {
    const text = 'Survey of the ferry,,,\n"Asked in May, by hand",,,\n,,,\nid,age,home,\nR1,44,Saltpans,\nR2,9,Pier,late\n';
    const table = await readTable('a.csv', bytes(text));
    expect([table.headerRow, table.header.slice(0, 3), table.rowNumbers]).toEqual([4, ['id', 'age', 'home'], [5, 6]]);
    expect(table.above).toEqual([
      { number: 1, words: 'Survey of the ferry' },
      { number: 2, words: 'Asked in May, by hand' },
    ]);
    const chosen = await readTable('a.csv', bytes(text), { headerRow: 2 });
    expect([chosen.header[0], chosen.rows.length]).toEqual(['Asked in May, by hand', 3]);
    const none = await readTable('a.csv', bytes(text), { headerRow: null });
    expect([none.headerRow, none.above, none.rows.length]).toEqual([null, [], 5]);
    // a list of one column has no title above it
    expect((await readTable('a.csv', bytes('name\nMoira\nIain\n'))).headerRow).toBe(1);
  });

  it('says what is wrong and where', async () => {
    const trouble = async (name: string, content: Uint8Array) => (await readTable(name, content).catch((error: unknown) => error)) as Error;
    expect((await trouble('a.csv', bytes('a,b\n1,2\n"open,3\n4,5\n'))).message).toMatch(/^Row 3 has a quotation mark/);
    expect((await trouble('a.csv', bytes('\n\n'))).message).toMatch(/empty/);
    expect((await trouble('a.csv', file('core/formats/fixtures/survey.xlsx'))).message).toMatch(/workbook or an archive/);
    expect((await trouble('a.xlsx', bytes('nothing'))).message).toMatch(/another type/);
    expect((await trouble('a.xls', bytes('x'))).message).toMatch(/cannot be read as tables/);
    expect(await trouble('a.ods', file('core/formats/fixtures/interview.odt'))).toBeInstanceOf(UnreadableFileError);
  });

  it('guesses what each column is', async () => {
    const survey = await readTable('survey.csv', file('demo/survey.csv'));
    expect(rolesOf(guessRoles(survey))).toEqual({
      response_id: 'identifier',
      started_at: 'date',
      seconds_taken: 'number',
      pseudonym: 'title',
      age: 'number',
      gender: 'choice',
      home: 'choice',
      years_on_island: 'number',
      crossings_per_month: 'number',
      'What will you gain from the bridge?': 'question',
      'What will you lose when the ferry stops?': 'question',
      'What should the council do first?': 'question',
    });
    const people = await readTable('participants.csv', file('demo/participants.csv'));
    expect(rolesOf(guessRoles(people, false))).toEqual(
      jasmine.objectContaining({ name: 'title', age: 'number', home: 'choice', consent_form: 'choice', consent_date: 'date' }),
    );
  });
});

describe('bringing a table in', () => {
  const choicesFor = (table: Table, fields: Partial<TableChoices> = {}): TableChoices => ({
    columns: guessRoles(table, fields.rowsBecome !== 'cases only'),
    rowsBecome: 'a document each',
    kind: 'survey answers',
    folderId: null,
    source: null,
    keep: new Set(),
    ...fields,
  });
  /** Plans, carries out and checks. */
  function bring(bench: Bench, table: Table, fields: Partial<TableChoices> = {}) {
    const plan = planTable(table, choicesFor(table, fields), bench.state, bench.newId, 1);
    bench.run(asPlanned(plan.change, 'brought in a table'));
    for (const one of plan.change) if (one.type === 'text' && one.after) bench.texts.set(one.after.id, one.after);
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
    return plan;
  }
  const SMALL = 'id,name,age,home,What will you lose?\nR1,Limpet,44,Saltpans,"The half hour.\nAll of it."\nR2,dunno,old,Northholm,\n';

  it('makes a document with its answers under their questions and a case with its attributes of each row', async () => {
    const bench = new Bench();
    const table = await readTable('s.csv', bytes(SMALL));
    const columns = choicesFor(table).columns.map((column) => (column.name === 'age' ? { ...column, type: 'number' as const } : column));
    const plan = bring(bench, table, { columns });
    expect([plan.newDocuments, plan.newCases, plan.unanswered, plan.newQuestions]).toEqual([2, 2, 1, ['What will you lose?']]);
    expect(plan.misfits).toEqual([{ row: 3, column: 'age', value: 'old', type: 'number' }]);
    const [first, second] = Object.values(bench.state.tables.document);
    const text = bench.texts.get(first!.id)!.text;
    expect(first!.answers.map((answer) => text.slice(answer.start, answer.end))).toEqual(['The half hour.\nAll of it.']);
    expect(second!.answers.map((answer) => answer.end - answer.start)).toEqual([0]);
    expect(Object.values(bench.state.tables.case).map((one) => [one.name, one.documentIds])).toEqual([
      ['Limpet', [first!.id]],
      ['dunno', [second!.id]],
    ]);
  });

  it('updates what is there by its identifier, says what changed, and adds only what is new', async () => {
    const bench = new Bench();
    bring(bench, await readTable('s.csv', bytes(SMALL)));
    const later = SMALL.replace('Saltpans', 'Gull Bay').replace('Limpet', 'limpet (renamed)') + 'R3,Bay,38,Gull Bay,The arriving.\n';
    const plan = bring(bench, await readTable('s.csv', bytes(later)));
    expect([plan.newCases, plan.newAttributes, plan.newQuestions, plan.unchanged]).toEqual([1, [], [], 1]);
    expect(plan.differences.map((one) => [one.caseName, one.attribute, one.before, one.after])).toEqual([
      ['Limpet', 'home', 'Saltpans', 'Gull Bay'],
    ]);
    expect(Object.values(bench.state.tables.case).length).toBe(3);
  });

  it('updates the answers of later rows in their documents, and passages stay on the words that stay', async () => {
    const bench = new Bench();
    bring(bench, await readTable('s.csv', bytes(SMALL)));
    const [first, second] = Object.values(bench.state.tables.document);
    const words = bench.texts.get(first!.id)!.text;
    const place = { start: words.indexOf('half hour'), end: words.indexOf('half hour') + 9 };
    bench.run(codePlace({ documentId: first!.id, place, codeIds: [], newCodes: [{ name: 'time' }] }));
    const later = SMALL.replace('The half hour.', 'Only the half hour, and that').replace('Northholm,', 'Northholm,"The crew.\nAnd Rona."');
    const table = await readTable('s.csv', bytes(later));
    const plan = bring(bench, table);
    expect([plan.newDocuments, plan.known.length]).toEqual([0, 2]);
    const updates = answerUpdates(plan.known, bench.state.tables.document, bench.texts);
    expect(updates.map((one) => [one.caseName, one.before, one.after])).toEqual([
      ['Limpet', 'The half hour.\nAll of it.', 'Only the half hour, and that\nAll of it.'],
      ['dunno', '', 'The crew.\nAnd Rona.'],
    ]);
    const done = bench.run(updateAnswers(updates, bench.texts, 's.csv'));
    for (const one of done!.change) if (one.type === 'text' && one.after) bench.texts.set(one.after.id, one.after);
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
    const answered = (id: string): string[] => {
      const text = bench.texts.get(id)!.text;
      return bench.state.tables.document[id]!.answers.map((answer) => text.slice(answer.start, answer.end));
    };
    expect(answered(first!.id)).toEqual(['Only the half hour, and that\nAll of it.']);
    expect(answered(second!.id)).toEqual(['The crew.\nAnd Rona.']);
    expect(bench.texts.get(second!.id)!.paragraphs.map((one) => one.style)).toEqual(['heading3', 'body', 'body']);
    const [passage] = unpackPassages(bench.state.passages[first!.id]!);
    expect(bench.texts.get(first!.id)!.text.slice(passage!.start, passage!.end)).toBe('half hour');
  });

  it('takes an answer out that a later row leaves blank, and keeps the question', async () => {
    const bench = new Bench();
    bring(bench, await readTable('s.csv', bytes(SMALL)));
    const [first] = Object.values(bench.state.tables.document);
    const table = await readTable('s.csv', bytes('id,name,age,home,What will you lose?\nR1,Limpet again,44,Saltpans,\n'));
    const columns = guessRoles(table).map((column) => (column.name.endsWith('?') ? { ...column, role: 'question' as const } : column));
    const plan = bring(bench, table, { columns });
    const done = bench.run(updateAnswers(answerUpdates(plan.known, bench.state.tables.document, bench.texts), bench.texts, 's.csv'));
    for (const one of done!.change) if (one.type === 'text' && one.after) bench.texts.set(one.after.id, one.after);
    expect(bench.texts.get(first!.id)!.text).toBe('What will you lose?');
    expect(bench.state.tables.document[first!.id]!.answers.map((one) => one.end - one.start)).toEqual([0]);
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
  });

  it('leaves a known case as it is where the researcher says so', async () => {
    const bench = new Bench();
    bring(bench, await readTable('p.csv', bytes('name,home\nMoira,Saltpans\nIain,Saltpans\n')), { rowsBecome: 'cases only' });
    const moira = Object.values(bench.state.tables.case)[0]!;
    const table = await readTable('p.csv', bytes('name,home\nMoira,Gull Bay\nIain,Gull Bay\n'));
    bring(bench, table, { rowsBecome: 'cases only', keep: new Set([moira.id]) });
    expect(Object.values(bench.state.tables.case).map((one) => Object.values(one.values)[0])).toEqual(['Saltpans', 'Gull Bay']);
  });

  it('takes a question that the study has in other words for that one, unless the researcher says otherwise', async () => {
    const bench = new Bench();
    const known = { id: '00000000-0000-4000-8000-000000000001', text: 'What will you lose when the ferry stops?', order: 0 };
    bench.state = applyChange(bench.state, [added('question', known)]);
    const table = await readTable(
      'a.csv',
      bytes('id,When the ferry stops what will you lose?,Who asked you?\nR1,"The night, the sea.",Nobody\n'),
    );
    const columns = guessRoles(table).map((column) => (column.name.endsWith('?') ? { ...column, role: 'question' as const } : column));
    const plan = bring(bench, table, { columns });
    expect(plan.similar).toEqual([{ column: 1, known: known.text }]);
    expect(plan.newQuestions).toEqual(['Who asked you?']);
    const own = bring(bench, table, { columns: columns.map((column) => ({ ...column, ownQuestion: true })) });
    expect(own.similar).toEqual([]);
    expect(own.newQuestions).toEqual(['When the ferry stops what will you lose?']);
  });

  it('makes a document for each question, by choice', async () => {
    const bench = new Bench();
    const plan = bring(bench, await readTable('survey.csv', file('demo/survey.csv')), { rowsBecome: 'a document for each question' });
    expect([plan.newDocuments, plan.newCases]).toEqual([144, 48]);
    expect(Object.values(bench.state.tables.case)[0]!.documentIds.length).toBe(3);
  });

  it('leaves out a row that names nobody, and refuses a table without a title', async () => {
    const bench = new Bench();
    const plan = bring(bench, await readTable('p.csv', bytes('name,age\nMoira,58\n,61\n')), { rowsBecome: 'cases only' });
    expect(plan.leftOut).toEqual([{ row: 3, why: 'it names nobody' }]);
    const table = await readTable('p.csv', bytes('age,home\n58,A\n61,B\n'));
    expect(() => planTable(table, choicesFor(table), bench.state, bench.newId, 1)).toThrowError(RangeError, /title or the identifier/);
  });
});
