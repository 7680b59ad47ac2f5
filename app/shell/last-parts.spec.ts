import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { LastParts } from './last-parts';

@Component({ selector: 'fl-anywhere', template: '', changeDetection: ChangeDetectionStrategy.OnPush })
class Anywhere {}

describe('the way back to a place', () => {
  let parts: LastParts;
  const go = (url: string) => TestBed.inject(Router).navigateByUrl(url);

  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideRouter([{ path: '**', component: Anywhere }])] });
    parts = TestBed.inject(LastParts);
  });

  it('leads to the part that was shown last, and from the place itself to its first', async () => {
    await go('/study/one/patterns?view=weave');
    expect(parts.of('patterns')).toEqual({});
    await go('/study/one/reading/some?passage=other');
    expect(parts.of('patterns')).toEqual({ view: 'weave' });
    await go('/study/one/patterns?view=beside&left=a&right=b');
    await go('/study/one/material?view=sets');
    await go('/study/one/memos');
    expect(parts.of('patterns')).toEqual({ view: 'beside', left: 'a', right: 'b' });
    expect(parts.of('material')).toEqual({ view: 'sets' });
  });

  it('does not remember what was pointed at, what lies deeper, or another study', async () => {
    await go('/study/one/queries?passage=some');
    await go('/study/one/material?view=cases');
    await go('/study/one/material/replace');
    await go('/study/one/overview');
    expect([parts.of('queries'), parts.of('material')]).toEqual([{}, { view: 'cases' }]);
    await go('/study/two/overview');
    expect(parts.of('material')).toEqual({});
    await go('/study/two/material?view=cases');
    await go('/');
    await go('/study/two/overview');
    expect(parts.of('material')).withContext('opened once more').toEqual({});
  });
});
