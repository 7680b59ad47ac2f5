import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { analysisHere } from '../../../testing/analysis-here';
import { selectCodes, selectStudy } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { Checks } from './checks';

describe('the checks of the codebook', () => {
  let checks: Drawn<Checks>;
  const codes = () => Object.values(TestBed.inject(Store).selectSignal(selectCodes)()).map((one) => one.name);
  const group = (title: string) => checks.all(`[aria-label="${title}"] li`);
  const act = (title: string, words: string, at = 0) =>
    checks.click([...group(title)[at]!.querySelectorAll<HTMLElement>('button')].find((one) => one.textContent.trim() === words)!);

  beforeEach(async () => {
    const bench = new Bench();
    const ids: Record<string, Id> = {};
    for (const name of ['Waiting', 'Waitings', 'Unused', 'Crossing']) ids[name] = bench.addCode(name);
    ids['Boat'] = bench.addCode('Boat', ids['Crossing']);
    const document = bench.addDocument('One', ['We waited at the pier for the boat all through the night.']);
    bench.code(document, 0, 9, ids['Waiting']!, ids['Waitings']!);
    bench.code(document, 10, 20, ids['Boat']!);
    // of a handful of passages nothing is called broad
    for (let at = 0; at < 18; at++) bench.code(document, 30 + at, 32 + at, ids['Boat']!);
    checks = await drawn(Checks, bench, {}, [analysisHere]);
    await checks.settle();
  });

  it('say what may be wrong, each with what can be done about it', () => {
    expect(group('Never used').map((one) => one.querySelector('.code')!.textContent)).toEqual([jasmine.stringContaining('Unused')]);
    expect(group('Nearly the same name').length).toBe(1);
    expect(group('Nearly the same passages')[0]!.textContent).toContain('share 100 % of the characters');
    expect(group('Categories with one code').length).toBe(1);
    expect(group('Very broad')[0]!.textContent).toContain('of all coded passages');
  });

  it('leave a finding as it is, remembered with the study, until all are looked at again', async () => {
    await act('Nearly the same name', 'Leave as it is');
    expect(group('Nearly the same name').length).toBe(0);
    expect(checks.host.textContent).toContain('1 left as they are.');
    expect(TestBed.inject(Store).selectSignal(selectStudy)()!.checksLeft!.length).toBe(1);
    await checks.click(checks.button('Show them again'));
    expect(group('Nearly the same name').length).toBe(1);
  });

  it('retire or delete what is never used, and move the only code out of its category', async () => {
    await act('Never used', 'Retire');
    await checks.settle();
    expect(group('Never used').length).toBe(0);
    checks.session.undo();
    await checks.settle();
    await act('Never used', 'Delete');
    expect(codes()).not.toContain('Unused');
    await act('Categories with one code', 'Move the code out');
    await checks.settle();
    expect(group('Categories with one code').length).toBe(0);
    expect(codes()).toContain('Boat');
  });

  it('follow their limits, and pass over what is no share', async () => {
    await checks.type('[aria-label="Share of passages in percent"]', '99', 'change');
    expect(group('Very broad').length).toBe(0);
    await checks.type('[aria-label="Share of passages in percent"]', '-5', 'change');
    expect(group('Very broad').length).toBe(0);
    await checks.type('[aria-label="Share of passages in percent"]', '30', 'change');
    expect(group('Very broad').length).toBeGreaterThan(0);
  });
});
