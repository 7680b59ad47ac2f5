import { MatDialogRef } from '@angular/material/dialog';
import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { Bench } from '@core/testing/make';
import { selectData } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { WordLists } from './word-lists';

describe('word lists', () => {
  let lists: Drawn<WordLists>;
  const closed: unknown[] = [];
  const kept = () =>
    Object.values(TestBed.inject(Store).selectSignal(selectData)()!.tables.wordList).map(({ name, words }) => [name, ...words]);

  beforeEach(async () => {
    closed.length = 0;
    lists = await drawn(WordLists, new Bench(), {}, [{ provide: MatDialogRef, useValue: { close: (name: unknown) => closed.push(name) } }]);
  });

  const write = async (name: string, words: string, done: string) => {
    await lists.type('input', name);
    await lists.type('textarea', words);
    lists.find('form').dispatchEvent(new Event('submit', { cancelable: true }));
    await lists.settle();
    expect(lists.button(done)).toBeTruthy();
  };

  it('are made, changed and deleted, and looked for by name', async () => {
    await write('ferry', 'boat\nlast ferry, crossing', 'Keep');
    expect(kept()).toEqual([['ferry', 'boat', 'last ferry', 'crossing']]);
    await write('ferries', 'boat', 'Keep');
    expect(kept()).toEqual([['ferries', 'boat']]);
    await lists.click(lists.button('Look for [ferries]'));
    expect(closed).toEqual(['ferries']);
    await lists.click(lists.button('Delete the list'));
    expect(kept()).toEqual([]);
  });

  it('that are refused stay as they were typed, with the reason', async () => {
    await write('a [b]', 'x', 'Make the list');
    expect(lists.find('[role=alert]').textContent).toContain('no brackets');
    expect(lists.find<HTMLInputElement>('input').value).toBe('a [b]');
    expect(kept()).toEqual([]);
  });
});
