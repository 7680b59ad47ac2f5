import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { added, updated } from '@core/change/change';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { selectDocuments } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { QuestionList } from './question-list';

describe('the questions of structured material', () => {
  let list: Drawn<QuestionList>;
  const table = () =>
    list
      .all('tbody tr')
      .map((row) => [row.querySelector('th')!.textContent, ...[...row.querySelectorAll('.number')].map((one) => one.textContent)]);
  const answers = () => Object.values(TestBed.inject(Store).selectSignal(selectDocuments)()).flatMap((one) => one.answers);
  const act = (question: string, words: string) => {
    const row = list.all('tbody tr').find((one) => one.querySelector('th')!.textContent === question)!;
    return list.click(
      [...row.querySelectorAll<HTMLElement>('button')].find(
        (one) => one.textContent.trim() === words || one.getAttribute('aria-label')?.startsWith(words),
      )!,
    );
  };

  beforeEach(async () => {
    const bench = new Bench();
    const ids: Id[] = [bench.newId(), bench.newId(), bench.newId()];
    bench.run(() => ({
      change: ['How often?', 'How many times?', 'Anything else?'].map((text, order) => added('question', { id: ids[order]!, text, order })),
      sentence: 'asked',
    }));
    for (const [title, questionId, answer] of [
      ['R1', ids[0]!, 'Twice.'],
      ['R2', ids[1]!, 'Once.'],
      ['R3', ids[0]!, ''],
    ] as const) {
      const document = bench.addDocument(title, ['Question', answer || 'blank']);
      const place = { questionId, asked: { start: 0, end: 8 }, start: 9, end: 9 + answer.length };
      bench.run((state) => ({
        change: [updated('document', state.tables.document[document.id]!, { answers: [place as never] })],
        sentence: 'answered',
      }));
    }
    list = await drawn(QuestionList, bench);
  });

  it('say in how many documents they are asked, and in how many answered', () => {
    expect(table()).toEqual([
      ['How often?', '2', '1'],
      ['How many times?', '1', '1'],
      ['Anything else?', '0', '0'],
    ]);
  });

  it('keep the order they are given', async () => {
    await act('Anything else?', 'Move up');
    expect(table().map(([text]) => text)).toEqual(['How often?', 'Anything else?', 'How many times?']);
  });

  it('that are the same are joined: all their answers belong to one, in one step', async () => {
    for (const text of ['How often?', 'How many times?']) {
      list.find(`[aria-label="Choose ${text}"]`).click();
      await list.settle();
    }
    list.answers.yes = false;
    await list.click(list.button('Join these 2 questions'));
    expect(table().length).toBe(3);
    for (const text of ['How often?', 'How many times?']) {
      list.find(`[aria-label="Choose ${text}"]`).click();
      await list.settle();
    }
    list.answers.yes = true;
    await list.click(list.button('Join these 2 questions'));
    expect(table()[0]).toEqual(['How often?', '3', '2']);
    expect(list.session.done.length).toBe(1);
    list.session.undo();
    await list.settle();
    expect(table()[1]).toEqual(['How many times?', '1', '1']);
  });

  it('are removed with their ties alone, after saying how many answers that concerns', async () => {
    list.answers.yes = false;
    await act('How often?', 'Remove');
    expect(list.answers.asked).toEqual(['Remove this question?']);
    expect(answers().length).toBe(3);
    list.answers.yes = true;
    await act('How often?', 'Remove');
    expect(answers().length).toBe(1);
    expect(Object.keys(TestBed.inject(Store).selectSignal(selectDocuments)()).length).toBe(3);
  });
});
