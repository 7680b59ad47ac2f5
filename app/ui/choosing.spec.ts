import { signal } from '@angular/core';
import { Choosing } from './choosing';

describe('choosing several', () => {
  it('is about what is chosen and shown: what a filter hides is let alone, and comes back chosen', () => {
    const shown = signal<readonly string[]>(['a', 'b', 'c', 'd']);
    const there = new Set(['a', 'b', 'c', 'd']);
    const choosing = new Choosing(shown, (id) => there.has(id));
    choosing.toggle('d');
    choosing.toggle('b');
    expect(choosing.ids()).toEqual(['b', 'd']);
    shown.set(['a', 'd']);
    expect([choosing.ids(), choosing.words()]).toEqual([['d'], '1 chosen, 1 more out of sight']);
    shown.set(['a']);
    expect(choosing.ids()).toEqual([]);
    shown.set(['a', 'b', 'c', 'd']);
    expect(choosing.ids()).toEqual(['b', 'd']);
  });

  it('forgets what is gone, and chooses all that are shown and none besides', () => {
    const shown = signal<readonly string[]>(['a', 'b']);
    const there = new Set(['a', 'b', 'c']);
    const choosing = new Choosing(shown, (id) => there.has(id));
    choosing.toggle('c');
    choosing.toggleAll();
    expect([choosing.ids(), choosing.hidden()]).toEqual([['a', 'b'], 0]);
    there.delete('b');
    shown.set(['a']);
    expect([choosing.ids(), choosing.words()]).toEqual([['a'], '1 chosen']);
    choosing.toggleAll();
    expect(choosing.ids()).toEqual([]);
  });
});
