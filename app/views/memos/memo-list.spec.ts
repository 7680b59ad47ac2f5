import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addMemo, addMemoEntry, editMemos } from '@core/commands/memos';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { selectMemos } from '../../state/study.selectors';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { MemoList } from './memo-list';

describe('all memos', () => {
  let list: Drawn<MemoList>;
  const titles = () => list.texts('.row strong');
  const left = () => list.find('[data-memos-left]').textContent.replace(/\s+/g, ' ');
  const memos = () => Object.values(TestBed.inject(Store).selectSignal(selectMemos)());
  const named = (title: string) => memos().find((one) => one.title === title)!;
  const choose = async (part: string, entry: string) => {
    await list.click(list.button(part));
    await list.click(list.button(entry));
  };
  const tick = async (...chosen: string[]) => {
    for (const title of chosen) {
      list.find(`[aria-label="Choose ${title}"]`).click();
      await list.settle();
    }
  };

  beforeEach(async () => {
    const bench = new Bench();
    const worry = bench.addCode('Worry');
    const write = (title: string, kind: string, text: string, about: Id | null = null): void => {
      bench.run(
        addMemo({ title, kind, text, about: about ? { type: 'code', id: about } : null, tags: title === 'Boats' ? ['later'] : [] }),
      );
    };
    write('Queues', 'analytic', 'People wait in company.');
    write('Boats', 'method', 'Who may ask for the night boat?', worry);
    write('Late thoughts', 'analytic', 'The boat **holds** them together.');
    bench.run(
      addMemoEntry(Object.values(bench.state.tables.memo).find((one) => one.title === 'Queues')!.id, 'And once more, about the boat.'),
    );
    list = await drawn(MemoList, bench);
  });

  it('are shown with the one written last first, or by title', async () => {
    expect(titles()).toEqual(['Queues', 'Late thoughts', 'Boats']);
    await choose('last written', 'title');
    expect(titles()).toEqual(['Boats', 'Late thoughts', 'Queues']);
  });

  it('are narrowed by kind, tag and what they are about, each part a click away from off', async () => {
    await choose('every kind', 'analytic');
    expect([titles(), left()]).toEqual([['Queues', 'Late thoughts'], '2 memos']);
    await choose('analytic', 'every kind');
    await choose('any tag or none', 'later');
    expect([titles(), left()]).toEqual([['Boats'], '1 memo']);
  });

  it('are found by words in any of their entries, with the place shown', async () => {
    await list.type('[aria-label="Find in memos"]', 'boat');
    expect(titles()).toEqual(['Queues', 'Late thoughts', 'Boats']);
    expect(list.texts('.row .line:last-child')[0]).toContain('once more, about the boat');
    await list.type('[aria-label="Find in memos"]', 'no such word');
    expect(list.host.textContent).toContain('No memo fits.');
  });

  it('are tagged, given a kind and put away together, each as one step', async () => {
    await tick('Queues', 'Boats');
    list.answers.text = 'chapter 2';
    await list.click(list.button('Tag…'));
    expect(['Queues', 'Boats', 'Late thoughts'].map((title) => named(title).tags ?? [])).toEqual([
      ['chapter 2'],
      ['later', 'chapter 2'],
      [],
    ]);
    list.answers.text = 'theory';
    await list.click(list.button('Kind…'));
    expect(memos().filter((one) => one.kind === 'theory').length).toBe(2);
    await list.click(list.button('Put away'));
    expect(titles()).toEqual(['Late thoughts']);
    expect(list.session.done.length).toBe(3);
    await list.click(list.button('not put away'));
    expect(titles().sort()).toEqual(['Boats', 'Queues']);
    await tick('Queues', 'Boats');
    await list.click(list.all('.tools button').find((one) => one.textContent === 'Take out again')!);
    expect(memos().some((one) => one.archived)).toBeFalse();
  });

  it('are deleted together only after asking', async () => {
    await list.click(list.button('Choose all shown'));
    list.answers.yes = false;
    await list.click(list.button('Delete'));
    expect(memos().length).toBe(3);
    list.answers.yes = true;
    await list.click(list.button('Delete'));
    expect(memos()).toEqual([]);
    list.session.undo();
    expect(memos().length).toBe(3);
  });

  it('are let alone while a filter hides them, chosen or not, and nothing chosen is never everything', async () => {
    await tick('Queues', 'Boats');
    await list.type('[aria-label="Find in memos"]', 'xyz');
    expect(list.texts('.tools button')[0]).toContain('Choose all shown');
    expect(list.all('.tools button').some((one) => one.textContent === 'Put away')).toBeFalse();
    await list.type('[aria-label="Find in memos"]', 'Boats');
    expect(list.texts('.tools button')[0]).toBe('1 chosen, 1 more out of sight: choose none');
    await list.click(list.button('Delete'));
    expect(list.answers.asked).toEqual(['Delete “Boats”?']);
    expect(
      memos()
        .map((one) => one.title)
        .sort(),
    ).toEqual(['Late thoughts', 'Queues']);
    await list.type('[aria-label="Find in memos"]', '');
    expect(list.texts('.tools button')[0]).toBe('1 chosen: choose none');
  });

  it('come back from a list that nothing fits by one click', async () => {
    await list.type('[aria-label="Find in memos"]', 'no such word');
    expect(titles()).toEqual([]);
    await list.click(list.button('Show all memos'));
    expect(titles().length).toBe(3);
  });

  it('are read on end, every entry with its day', async () => {
    await list.click(list.button('Read on end'));
    expect(list.texts('.on-end h2')).toEqual(['Queues', 'Late thoughts', 'Boats']);
    expect(list.find('.on-end').textContent).toContain('People wait in company.');
    expect(list.all('.on-end strong').map((one) => one.textContent)).toEqual(['holds']);
  });

  it('are walked by the arrows', async () => {
    await list.click(list.all('.pick')[0]!);
    await list.press(list.all('.pick')[0]!, 'ArrowDown');
    expect(list.all('.row')[1]!.classList).toContain('here');
    await list.press(list.all('.pick')[1]!, 'ArrowUp');
    expect(list.all('.row')[0]!.classList).toContain('here');
  });

  it('put away by a command are counted among those put away', async () => {
    list.session.run(editMemos([named('Boats').id], { archived: true }));
    await list.settle();
    expect(left()).toBe('2 memos');
    expect(list.button('not put away')).toBeDefined();
  });
});
