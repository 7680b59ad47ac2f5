import { guessRoles } from '../formats/table/guess-roles';
import { readTable } from '../formats/table/read-table';
import type { TableChoices } from '../material/plan-table';
import { Bench } from '../testing/make';
import { PlannedAhead } from './planned-ahead';

describe('a table planned ahead', () => {
  const read = (text: string) => readTable('a.csv', new TextEncoder().encode(text));
  const choices = (table: Awaited<ReturnType<typeof read>>, fields: Partial<TableChoices> = {}): TableChoices => ({
    columns: guessRoles(table),
    rowsBecome: 'a document each',
    kind: 'survey answers',
    folderId: null,
    source: null,
    keep: new Set(),
    ...fields,
  });
  const { state } = new Bench();
  let ahead: PlannedAhead;
  beforeEach(() => (ahead = new PlannedAhead()));

  it('is stored as it was planned and checked, with the moment of storing', async () => {
    const table = await read('id,Why?\nR1,The boat.\nR2,The pier.');
    const planned = ahead.plan(table, choices(table), state, 4);
    await ahead.check();
    const { plan, checked } = ahead.take(table, choices(table), state, 4, 99);
    expect(checked).toBeTrue();
    const ids = (some: typeof plan) => some.change.map((one) => one.after!.id);
    expect(ids(plan)).toEqual(ids(planned));
    expect(plan.change.flatMap((one) => (one.type === 'document' ? [one.after!.createdAt] : []))).toEqual([99, 99]);
  });

  it('is planned anew where anything is otherwise: the study, a decision, the table', async () => {
    const table = await read('id,Why?\nR1,The boat.\nR2,The pier.');
    const other = await read('id,Why?\nR1,The boat.\nR2,The pier.');
    const asked: readonly (readonly [typeof table, TableChoices, number])[] = [
      [table, choices(table), 5],
      [table, choices(table, { keep: new Set(['someone']) }), 4],
      [table, choices(table, { kind: 'interview' }), 4],
      [other, choices(other), 4],
    ];
    for (const [its, chosen, seq] of asked) {
      ahead.plan(table, choices(table), state, 4);
      await ahead.check();
      expect(ahead.take(its, chosen, state, seq, 99).checked).toBeFalse();
    }
    // what was taken once is not taken again: ids are given once
    expect(ahead.take(table, choices(table), state, 4, 99).checked).toBeFalse();
  });

  it('is not said to be checked before it is, nor where something is wrong with it', async () => {
    const table = await read('id,Why?\nR1,The boat.\nR2,The pier.');
    ahead.plan(table, choices(table), state, 4);
    expect(ahead.take(table, choices(table), state, 4, 99).checked).toBeFalse();
    const wrong = choices(table, { source: { fileName: '', sha256: 'none' } });
    ahead.plan(table, wrong, state, 4);
    await ahead.check();
    expect(ahead.take(table, wrong, state, 4, 99).checked).toBeFalse();
  });
});
