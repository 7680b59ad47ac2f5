import { Bench } from '../testing/make';
import { applyChange } from '../change/apply';
import { invert } from '../change/change';
import { addCase, editCase } from './cases';
import { CommandError } from '../change/command';
import { together } from './together';

describe('commands together', () => {
  it('are one step, each seeing what the ones before it did', () => {
    const bench = new Bench();
    const id = bench.newId();
    const before = bench.state;
    const action = bench.run(together([addCase('Shona', id), editCase(id, { name: 'Shona M.' })]))!;
    expect(action.change.length).toBe(1);
    expect(action.sentence).toBe('made the participant Shona, and renamed Shona to Shona M.');
    expect(bench.state.tables.case[id]!.name).toBe('Shona M.');
    expect(applyChange(bench.state, invert(action.change))).toEqual(before);
  });

  it('pass over what finds nothing to do, and do nothing where nothing is to be done', () => {
    const bench = new Bench();
    const id = bench.newId();
    bench.run(addCase('Shona', id));
    expect(bench.run(together([editCase(id, { name: 'Shona' }), editCase(id, { name: 'Mhairi' })], 'renamed them'))!.sentence).toBe(
      'renamed them',
    );
    expect(bench.run(together([editCase(id, { name: 'Mhairi' })]))).toBeNull();
    expect(bench.run(together([]))).toBeNull();
  });

  it('are refused whole where one is refused', () => {
    const bench = new Bench();
    const id = bench.newId();
    const before = bench.state;
    expect(() => bench.run(together([addCase('Shona', id), editCase(bench.newId(), { name: 'nobody' })]))).toThrowError(CommandError);
    expect(bench.state).toBe(before);
  });
});
