import initSqlJs, { type Database } from 'sql.js';
import type { Text } from '../core/model/document';
import type { Id } from '../core/model/ids';
import type { TogetherAsked, WordsAsked } from '../core/model/pattern';
import { EVERYTHING } from '../core/model/scope';
import type { StudyState } from '../core/model/study-state';
import { packPassages, unpackPassages } from '../core/passages/columns';
import { PairCounter } from '../core/patterns/code-pairs';
import { CrossCounter, type CrossTable } from '../core/patterns/cross-table';
import type { CountedTable } from '../core/patterns/table-measure';
import { groupAxisOf } from '../core/patterns/group-axis';
import { ProfileCounter } from '../core/patterns/similarity/profiles';
import { similarityOf } from '../core/patterns/similarity/similarity';
import { WordCounter } from '../core/patterns/word-counts';
import { AskedStudy } from '../core/queries/asked-study';
import { Narrowing } from '../core/queries/narrowing';
import { buildLargeStudy } from '../core/sample/large-study';
import { IndexedWords } from '../core/words/vocabulary';
import { report } from './report';
import { fillCases, fillPassages } from './sqlite';
import { time } from './timing';

/** Runs of what is timed: the first dozen also compile what is run. */
const RUNS = 31;

/** Rows of codes by themselves, every marked passage counted: what SQLite can be asked as well. */
const ROWS = { of: 'codes', codeIds: null, withUnder: false } as const;

/** Patterns of the large study, beside SQLite with the same rows and an index for each way it looks. */
export async function benchPatterns(state: StudyState, texts: readonly Text[]): Promise<void> {
  const database = new (await initSqlJs()).Database();
  const codeIds = Object.keys(state.tables.code);
  fillPassages(database, state, codeIds);

  const byId = new Map(texts.map((text) => [text.id, text]));
  const crossed = crossTable(state, { rows: ROWS, columns: { by: 'document' }, counting: 'passages', coders: 'each passage' }, byId);
  beside(database, `codes × documents (${codeIds.length} × ${crossed.columns}), passages`, crossed.milliseconds, crossed.sums, [
    `select coding.code, passage.document, count(distinct passage.id) n from coding join passage on passage.id = coding.passage group by 1, 2`,
    `select code, count(distinct passage) n from coding group by 1`,
    `select passage.document, count(distinct passage.id) n from coding join passage on passage.id = coding.passage group by 1`,
    `select count(distinct passage) n from coding`,
  ]);
  report({ what: 'the same for the first time, with who speaks found out and nothing compiled yet', value: crossed.first, unit: 'ms' });
  report({
    what: 'the same, coders taken together and with what is under each code',
    value: crossTable(
      state,
      { rows: { ...ROWS, withUnder: true }, columns: { by: 'document' }, counting: 'passages', coders: 'together' },
      byId,
    ).milliseconds,
    unit: 'ms',
  });
  report({
    what: 'the open table after one coding changed',
    value: crossed.changed,
    unit: 'ms',
    promise: { words: 'under 50 ms', kept: crossed.changed < 50 },
  });

  const attributes = Object.values(state.tables.attribute).filter((one) => one.of === 'case');
  const nested = attributes.slice(0, 2).map(({ id }) => ({ attributeId: id }));
  if (nested.length > 0) {
    fillCases(
      database,
      state,
      byId,
      nested.map(({ attributeId }) => attributeId),
    );
    const asked: CountedTable = { rows: ROWS, columns: { nested }, counting: 'passages', coders: 'each passage' };
    const found = crossTable(state, asked, byId);
    const by = nested.map((_, at) => `known.a${at}`).join(', ');
    const owned = 'coding left join owner on owner.passage = coding.passage left join known on known.owner = owner.owner';
    beside(database, `codes × nested attributes of who speaks (${codeIds.length} × ${found.columns})`, found.milliseconds, found.sums, [
      `select coding.code, ${by}, count(distinct coding.passage) n from ${owned} group by coding.code, ${by}`,
      `select code, count(distinct passage) n from coding group by 1`,
      `select ${by}, count(distinct coding.passage) n from ${owned} group by ${by}`,
      `select count(distinct passage) n from coding`,
    ]);
  }

  const together: TogetherAsked = {
    ...{ pattern: 'together', rows: ROWS, by: 'overlap', within: { count: 1, unit: 'paragraph' }, coders: 'each passage', as: 'counts' },
  };
  const pairs = codePairs(state, together);
  beside(
    database,
    `codes together (${codeIds.length} × ${codeIds.length}, overlapping)`,
    pairs.milliseconds,
    [pairs.sum],
    [
      `select a.code, b.code, count(*) n from
      (select distinct c.code, p.id, p.document, p.start, p.end from coding c join passage p on p.id = c.passage) a join
      (select distinct c.code, p.id, p.document, p.start, p.end from coding c join passage p on p.id = c.passage) b
      on a.document = b.document and a.start < b.end and b.start < a.end and a.code < b.code group by 1, 2`,
    ],
  );
  database.close();

  benchSimilarity(state);
  benchWordCounts(state, texts);
  for (const documents of [100, 1_000, 10_000]) {
    const { state: sized } = buildLargeStudy({
      documents,
      words: documents * 120,
      passages: documents * 20,
      codings: documents * 30,
      codes: 200,
      cases: 100,
      attributes: 2,
    });
    report({
      what: `codes × documents of ${documents.toLocaleString('en')} documents`,
      value: crossTable(sized, { rows: ROWS, columns: { by: 'document' }, counting: 'passages', coders: 'each passage' }).milliseconds,
      unit: 'ms',
    });
  }
}

/**
 * Counted from nothing, once it is known who speaks where and how many words that are: as SQLite has it in its tables.
 * @returns sums of the cells, of the totals of rows and of columns, and the total of all
 */
function crossTable(
  state: StudyState,
  asked: CountedTable,
  texts: ReadonlyMap<Id, Text> = new Map(),
): { milliseconds: number; first: number; changed: number; columns: number; sums: number[] } {
  const study = studyOf(state);
  const narrowing = new Narrowing(EVERYTHING, study);
  const documents = Object.values(state.tables.document);
  const all = Object.values(state.passages);
  const make = (): CrossCounter => {
    const counter = new CrossCounter(asked, study, narrowing, documents);
    for (const document of documents) counter.add(state.passages[document.id] ?? null, document, texts.get(document.id) ?? null);
    return counter;
  };
  let table: CrossTable | undefined;
  const first = time(1, () => make().result(all));
  const milliseconds = time(RUNS, () => (table = make().result(all)));
  const counter = make();
  const [one] = all as [(typeof all)[number]];
  const others = unpackPassages(one);
  const changed = time(5, () => {
    const now = packPassages(one.documentId, others.slice(1), one.ground);
    counter.add(now, state.tables.document[one.documentId]!, texts.get(one.documentId) ?? null);
    counter.result([now, ...all.slice(1)]);
  });
  return { milliseconds, first, changed, columns: table!.columns.length, sums: sumsOf(table!) };
}

function sumsOf({ rows, columns, counts }: CrossTable): number[] {
  const sums = [0, 0, 0, 0];
  for (let row = 0, at = 0; row <= rows.length; row++)
    for (let column = 0; column <= columns.length; column++, at++)
      sums[(row === rows.length ? 2 : 0) + (column === columns.length ? 1 : 0)]! += counts[at]!;
  return sums;
}

function codePairs(state: StudyState, asked: TogetherAsked): { milliseconds: number; sum: number } {
  const study = studyOf(state);
  const narrowing = new Narrowing(EVERYTHING, study);
  let sum = 0;
  const milliseconds = time(RUNS, () => {
    const counter = new PairCounter(asked, study, narrowing);
    for (const columns of Object.values(state.passages)) counter.add(columns, state.tables.document[columns.documentId]!, null);
    const { counts, entries } = counter.result(Object.values(state.passages));
    sum = 0;
    for (let one = 0; one < entries.length; one++)
      for (let other = one + 1; other < entries.length; other++) sum += counts[one * entries.length + other]!;
  });
  return { milliseconds, sum };
}

/** Every code with every other by the documents they occur in, with the plan and the tree. */
function benchSimilarity(state: StudyState): void {
  const study = studyOf(state);
  const asked = { compared: 'codes', rows: ROWS, occurring: 'documents', coders: 'together' } as const;
  let things = 0;
  const milliseconds = time(3, () => {
    const counter = new ProfileCounter(asked, study, new Narrowing(EVERYTHING, study));
    for (const columns of Object.values(state.passages)) counter.add(columns, state.tables.document[columns.documentId]!, null);
    const profiles = counter.result(Object.values(state.passages));
    things = similarityOf({ compared: 'codes', by: 'presence', attributeIds: [] }, profiles, state.tables, []).things.length;
  });
  report({
    what: `similarity of ${things} codes, with plan and tree`,
    value: milliseconds,
    unit: 'ms',
    promise: { words: 'under 1 s', kept: milliseconds < 1_000 },
  });
}

function benchWordCounts(state: StudyState, texts: readonly Text[]): void {
  const study = studyOf(state);
  const narrowing = new Narrowing(EVERYTHING, study);
  const words = new IndexedWords();
  const indexed = time(1, () => {
    for (const text of texts) words.of(text);
  });
  const documents = Object.values(state.tables.document);
  const [first] = documents as [(typeof documents)[number]];
  const asked: WordsAsked = { ...{ pattern: 'words', run: 1, forms: false, withoutStopWords: true, kept: [], left: [], minimum: 2 } };
  let total = 0;
  const count = (asking: WordsAsked, typicalOf?: Id): number =>
    time(3, () => {
      const axis = typicalOf === undefined ? null : groupAxisOf({ by: 'document' }, study, documents);
      const groups = axis && { axis, at: axis.entries.findIndex((one) => one.key === typicalOf) };
      const counter = new WordCounter(asking, words, narrowing, groups, state.study.language);
      for (const text of texts) counter.add(state.tables.document[text.id]!, text);
      ({ total } = counter.result());
    });
  const plain = count(asked);
  const all = total;
  const typical = count(asked, first.id);
  const sides = `of ${all.toLocaleString('en')} words, once texts are numbered (${indexed.toFixed(0)} ms)`;
  report({
    what: `word frequencies ${sides}`,
    value: plain,
    unit: 'ms',
    promise: { words: 'with keyness under 1.5 s', kept: plain + typical < 1_500 },
  });
  report({ what: 'words typical of one document against all others', value: typical, unit: 'ms' });
  report({ what: 'runs of two words', value: count({ ...asked, run: 2 }), unit: 'ms' });
}

/** Reports a count beside the same one of SQLite, and fails where they differ. @param asked as many queries as sums: the cells, and the totals that the table shows */
function beside(database: Database, what: string, value: number, sums: readonly number[], asked: readonly string[]): void {
  const theirs = time(1, () =>
    asked.forEach((sql, at) => {
      const sum = Number(database.exec(`select sum(n) from (${sql})`)[0]!.values[0]![0]);
      if (sum !== sums[at]) throw new Error(`The counts of ${what} differ: ${sums[at]} and ${sum}.`);
    }),
  );
  report({
    what,
    value,
    unit: 'ms',
    beside: { what: 'SQLite, indexed', value: theirs },
    promise: { words: 'under 80 ms, and at least 30 × faster', kept: value < 80 && theirs >= 30 * value },
  });
}

const studyOf = (state: StudyState): AskedStudy =>
  new AskedStudy(
    state.tables,
    () => Object.values(state.passages),
    'en',
    () => 0,
  );
