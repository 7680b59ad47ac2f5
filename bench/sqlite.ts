import type { Id } from '../core/model/ids';
import type { StudyState } from '../core/model/study-state';

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
