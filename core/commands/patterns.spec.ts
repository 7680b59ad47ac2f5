import { EVERYTHING } from '../model/scope';
import type { AskedPattern } from '../model/pattern';
import { Bench } from '../testing/make';
import { deletePattern, keepPattern } from './patterns';

describe('kept patterns', () => {
  const asked: AskedPattern = {
    ...{ pattern: 'frequencies', rows: { of: 'top codes' }, coders: 'together', counting: 'passages', minimum: 0 },
  };

  it('are kept with their scope, replaced only when that is said, and deleted', () => {
    const bench = new Bench();
    const kept = () => Object.values(bench.state.tables.pattern);
    const scope = { parts: [{ kinds: ['interview' as const] }] };
    expect(bench.run(keepPattern('  What comes   up ', asked, scope))!.sentence).toBe('kept the pattern What comes up');
    expect(kept()).toEqual([jasmine.objectContaining({ name: 'What comes up', asked, scope })]);
    expect(bench.run(keepPattern('What comes up', asked, scope))).toBeNull();
    expect(() => bench.run(keepPattern('What comes up', asked, EVERYTHING))).toThrowError(/shows something else/);
    expect(() => bench.run(keepPattern(' ', asked, EVERYTHING))).toThrowError(/needs a name/);
    const [before] = kept();
    bench.run(keepPattern('What comes up', asked, EVERYTHING, true));
    expect(kept()).toEqual([{ ...before!, scope: EVERYTHING }]);
    bench.run(deletePattern(before!.id));
    expect(kept()).toEqual([]);
  });
});
