import type { Text } from '../core/model/document';
import type { Id } from '../core/model/ids';
import type { StudyState } from '../core/model/study-state';
import { caseFinderOf } from '../core/passages/case-finder';
import { placeOfRow } from '../core/passages/columns';

/** Puts the passages and codings of a study into a database, with an index for each way they are looked for. @param ids codes, by the numbers they get */
export function fillPassages(
  database: {
    run(sql: string, values?: (string | number)[]): unknown;
    prepare(sql: string): { run(values: (string | number)[]): unknown; free(): unknown };
  },
  state: StudyState,
  ids: readonly Id[],
): void {
  database.run('create table passage (id integer primary key, document integer, start integer, end integer)');
  database.run('create table coding (passage integer, code integer)');
  const numbers = new Map(ids.map((id, at) => [id, at]));
  const passage = database.prepare('insert into passage values (?, ?, ?, ?)');
  const coding = database.prepare('insert into coding values (?, ?)');
  database.run('begin');
  let id = 0;
  for (const [document, columns] of Object.values(state.passages).entries()) {
    const first = id;
    for (let row = 0; row < columns.starts.length; row++) passage.run([id++, document, columns.starts[row]!, columns.ends[row]!]);
    for (let at = 0; at < columns.codingRow.length; at++)
      coding.run([first + columns.codingRow[at]!, numbers.get(columns.codes[columns.codingCode[at]!]!)!]);
  }
  database.run('commit');
  passage.free();
  coding.free();
  database.run('create index by_place on passage (document, start, end)');
  database.run('create index by_passage on coding (passage, code)');
  database.run('create index by_code on coding (code, passage)');
  database.run('analyze');
}

/** Puts whose each passage is beside {@link fillPassages}, and what is known of each case. @param attributeIds as columns `a0`, `a1`… */
export function fillCases(
  database: Parameters<typeof fillPassages>[0],
  state: StudyState,
  texts: ReadonlyMap<Id, Text>,
  attributeIds: readonly Id[],
): void {
  const names = attributeIds.map((_, at) => `a${at}`);
  database.run('create table owner (passage integer, owner integer)');
  database.run(`create table known (owner integer primary key, ${names.join(', ')})`);
  const cases = Object.values(state.tables.case);
  const numbers = new Map(cases.map(({ id }, at) => [id, at]));
  const finder = caseFinderOf(state.tables.case);
  const known = database.prepare(`insert into known values (${['?', ...names.map(() => '?')].join(', ')})`);
  const owner = database.prepare('insert into owner values (?, ?)');
  database.run('begin');
  cases.forEach((one, at) => known.run([at, ...attributeIds.map((id) => String(one.values[id] ?? '?'))]));
  let passage = 0;
  for (const columns of Object.values(state.passages)) {
    const document = state.tables.document[columns.documentId]!;
    for (let row = 0; row < columns.starts.length; row++, passage++)
      for (const id of finder.of(document, texts.get(document.id) ?? null, placeOfRow(columns, row)))
        owner.run([passage, numbers.get(id)!]);
  }
  database.run('commit');
  known.free();
  owner.free();
  database.run('create index by_owned on owner (passage, owner)');
  database.run('create index by_owner on owner (owner, passage)');
  database.run('analyze');
}
