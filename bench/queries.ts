import initSqlJs from 'sql.js';
import type { Id } from '../core/model/ids';
import type { PassageCondition } from '../core/model/passage-condition';
import type { StudyState } from '../core/model/study-state';
import { withDescendants } from '../core/codebook/tree';
import { AskedStudy } from '../core/queries/asked-study';
import { Evaluation } from '../core/queries/evaluate';
import { Narrowing } from '../core/queries/narrowing';
import { EVERYTHING } from '../core/model/scope';
import { report } from './report';
import { fillPassages } from './sqlite';
import { time } from './timing';

/** A question of three parts with a relation, beside SQLite with the same rows and an index for each way it looks. */
export async function benchQueries(state: StudyState): Promise<void> {
  const ids = Object.keys(state.tables.code);
  // the two largest categories: as a question about themes is asked
  const size = (id: Id): number => withDescendants(state.tables.code, id).length;
  const [wanted, near] = ids.toSorted((a, b) => size(b) - size(a)) as [Id, Id];
  const never = ids.at(-1)!;
  const carries = (how: 'any' | 'none', withUnder: boolean, ...codeIds: Id[]): PassageCondition => ({
    carries: how,
    codes: { codeIds, setIds: [], withUnder },
    reach: 'passage',
  });
  const question = {
    all: [carries('any', true, wanted), { standing: 'overlaps' as const, to: carries('any', true, near) }, carries('none', false, never)],
  };
  const columns = Object.values(state.passages);
  const study = new AskedStudy(
    state.tables,
    () => columns,
    'en',
    () => 0,
  );
  const everything = new Narrowing(EVERYTHING, study);
  let found = 0;
  const ours = time(15, () => {
    const evaluation = new Evaluation(question, study, everything);
    for (const some of columns) evaluation.hitsIn(some, state.tables.document[some.documentId]!, null);
    found = evaluation.found;
  });

  const under = (id: Id): string =>
    withDescendants(state.tables.code, id)
      .map((one) => ids.indexOf(one))
      .join();
  const database = new (await initSqlJs()).Database();
  fillPassages(database, state, ids);
  const plain = `select count(*) from passage a
    where exists (select 1 from coding where passage = a.id and code in (${under(wanted)}))
    and exists (select 1 from passage b join coding c on c.passage = b.id
      where b.document = a.document and b.start < a.end and b.end > a.start and c.code in (${under(near)}))
    and not exists (select 1 from coding where passage = a.id and code = ${ids.indexOf(never)})`;
  const tuned = `with
    a as (select distinct p.* from coding c join passage p on p.id = c.passage where c.code in (${under(wanted)})),
    b as (select distinct p.* from coding c join passage p on p.id = c.passage where c.code in (${under(near)}))
    select count(*) from (select distinct a.id from b join a on b.document = a.document and b.start < a.end and b.end > a.start
      where not exists (select 1 from coding where passage = a.id and code = ${ids.indexOf(never)}))`;
  const asked = (sql: string): number =>
    time(1, () => {
      const theirs = Number(database.exec(sql)[0]!.values[0]![0]);
      if (theirs !== found) throw new Error(`The answers differ: ${found} and ${theirs}.`);
    });
  const theirs = asked(plain);
  report({
    what: `a question of three parts with a relation over 300,000 codings, ${found.toLocaleString('en')} found`,
    value: ours,
    unit: 'ms',
    beside: { what: 'SQLite, indexed, asked plainly', value: theirs },
    promise: { words: 'under 60 ms, and at least 20 × faster', kept: ours < 60 && theirs >= 20 * ours },
  });
  report({
    what: 'the same, with the count of each part',
    value: ours,
    unit: 'ms',
    beside: { what: 'SQLite, its plan written out by hand, without them', value: asked(tuned) },
  });
  database.close();
}
