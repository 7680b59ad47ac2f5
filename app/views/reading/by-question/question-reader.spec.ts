import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addAttribute, attributesOf, setValues } from '@core/commands/attributes';
import { addCase, ownDocuments } from '@core/commands/cases';
import { added, updated } from '@core/change/change';
import type { Id } from '@core/model/ids';
import { unpackPassages } from '@core/passages/columns';
import { Bench } from '@core/testing/make';
import { selectPassages } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { QuestionReader } from './question-reader';

describe('all answers to one question', () => {
  let reader: Drawn<QuestionReader>;
  let help: Id;
  const words = () => reader.texts('[data-answer] .words, article .words, .words').filter(Boolean);
  const cell = (at: number) => reader.all('fl-code-cell')[at]!.querySelector('input')!;
  const coded = () =>
    Object.values(TestBed.inject(Store).selectSignal(selectPassages)()).flatMap((columns) =>
      unpackPassages(columns).map((one) => `${one.start}-${one.end}`),
    );

  beforeEach(async () => {
    const bench = new Bench();
    help = bench.addCode('Help');
    const [first, second] = [bench.newId(), bench.newId()];
    bench.run(() => ({
      change: ['How often?', 'What else?'].map((text, order) => added('question', { id: order ? second : first, text, order })),
      sentence: 'asked',
    }));
    bench.run(addAttribute('case', 'age', 'number'));
    const age = attributesOf(bench.state, 'case')[0]!.id;
    for (const [title, answer, years] of [
      ['R1', 'Twice a week, for the shop.', '44'],
      ['R2', '', '9'],
      ['R3', 'Never since the bridge.', '58'],
    ] as const) {
      const document = bench.addDocument(title, ['How often?', answer || '(blank)', 'What else?', `Nothing, says ${title}.`]);
      const text = bench.texts.get(document.id)!.text;
      const start = 'How often?\n'.length;
      const other = text.lastIndexOf('\n') + 1;
      bench.run((state) => ({
        change: [
          updated('document', state.tables.document[document.id]!, {
            answers: [
              { questionId: first, asked: { start: 0, end: 10 }, start, end: start + answer.length } as never,
              { questionId: second, asked: { start: 12, end: 20 }, start: other, end: text.length } as never,
            ],
          }),
        ],
        sentence: 'answered',
      }));
      const owner = bench.newId();
      bench.run(addCase(title, owner));
      bench.run(ownDocuments(owner, [document.id], true));
      bench.run(setValues([{ ownerId: owner, attributeId: age, raw: years }]));
    }
    reader = await drawn(QuestionReader, bench, {}, [], { width: 1_000, height: 700 });
    await reader.settle();
  });

  it('are read down the page with what is known of each respondent, blank ones counted apart', () => {
    expect(reader.host.textContent).toContain('Twice a week, for the shop.');
    expect(reader.host.textContent).toContain('Never since the bridge.');
    expect(reader.host.textContent).not.toContain('Nothing, says R1.');
    expect(reader.host.textContent).toContain('44');
    expect(reader.all('fl-code-cell').length).toBe(2);
    expect(words().length).toBeGreaterThan(0);
  });

  it('are coded each in its cell, the whole answer where no words are selected', async () => {
    cell(0).focus();
    await reader.type(cell(0), 'help');
    await reader.press(cell(0), 'Enter');
    expect(coded()).toEqual(['11-38']);
    expect(reader.session.done.length).toBe(1);
    expect(help).toBeDefined();
  });

  it('are those of another question when it is chosen from the address', async () => {
    const second = reader.fixture.componentInstance['questions']()[1]!.id;
    reader.fixture.componentRef.setInput('questionId', second);
    for (let turn = 0; turn < 3; turn++) await reader.settle();
    expect(reader.host.textContent).toContain('Nothing, says R2.');
    expect(reader.host.textContent).not.toContain('Twice a week');
    expect(reader.all('fl-code-cell').length).toBe(3);
  });

  it('that are not coded yet can be shown alone, and one that is coded meanwhile stays under the hands', async () => {
    reader.fixture.componentInstance['setUncodedOnly'](true);
    await reader.settle();
    await reader.type(cell(1), 'help');
    await reader.press(cell(1), 'Enter');
    expect(reader.all('fl-code-cell').length).toBe(2);
    reader.fixture.componentInstance['setUncodedOnly'](true);
    await reader.settle();
    expect(reader.all('fl-code-cell').length).toBe(1);
  });
});
