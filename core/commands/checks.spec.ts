import { invert } from '../change/change';
import { applyChange } from '../change/apply';
import { StudySchema } from '../model/study';
import { Bench } from '../testing/make';
import { leaveFinding, lookAtAllFindings } from './checks';
import { deleteCode } from './codes';

describe('findings of the checks', () => {
  it('that are left as they are stay with the study, each once, until all are looked at again', () => {
    const bench = new Bench();
    const [wait, waits] = [bench.addCode('Waiting'), bench.addCode('Waitings')];
    const pair = { kind: 'similar names', codeIds: [wait, waits] } as const;
    const action = bench.run(leaveFinding(pair))!;
    expect(action.sentence).toBe('left Waiting and Waitings as it is (similar names)');
    expect(StudySchema.parse(bench.state.study).checksLeft).toEqual([{ kind: 'similar names', codeIds: [wait, waits] }]);
    // the same pair the other way round is the same finding
    expect(bench.run(leaveFinding({ ...pair, codeIds: [waits, wait] }))).toBeNull();
    expect(applyChange(bench.state, invert(action.change)).study.checksLeft).toBeUndefined();
    bench.run(leaveFinding({ kind: 'never used', codeIds: [wait] }));
    expect(bench.state.study.checksLeft!.length).toBe(2);
    bench.run(lookAtAllFindings());
    expect(bench.state.study.checksLeft).toBeUndefined();
    expect(bench.run(lookAtAllFindings())).toBeNull();
  });

  it('are forgotten with their codes', () => {
    const bench = new Bench();
    const [gone, stays] = [bench.addCode('Gone'), bench.addCode('Stays')];
    bench.run(leaveFinding({ kind: 'never used', codeIds: [gone] }));
    bench.run(deleteCode(gone));
    bench.run(leaveFinding({ kind: 'never used', codeIds: [stays] }));
    expect(bench.state.study.checksLeft).toEqual([{ kind: 'never used', codeIds: [stays] }]);
    expect(() => bench.run(leaveFinding({ kind: 'never used', codeIds: [gone] }))).toThrowError(/no longer there/);
  });
});
