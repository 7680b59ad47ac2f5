import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addCase, deleteCases, ownDocuments } from '@core/commands/cases';
import { addProposition, editProposition } from '@core/commands/propositions';
import { codePlace } from '@core/commands/passages';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { ScopeActions } from '../../../state/study.actions';
import { selectData } from '../../../state/study.selectors';
import { TextCache } from '../../../state/text-cache';
import { analysisHere } from '../../../testing/analysis-here';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { until } from '../../../testing/until';
import { PropositionDraft } from './proposition-draft';
import { Propositions } from './propositions';

describe('propositions', () => {
  let place: Drawn<Propositions>;
  let cases: Record<string, Id>;
  const table = () => TestBed.inject(Store).selectSignal(selectData)()!.tables.proposition;
  const rows = (verdict: string) => place.texts(`[data-verdict=${verdict}] th[scope=row]`);
  const answered = () =>
    until(
      () => place.all('table').length > 0,
      () => TestBed.tick(),
    );
  const chooseCode = async (list: string, name: string) => {
    await place.click(place.find(`[aria-label="${list}"] + .add`));
    const box = place.all('fl-choose-codes label').find((one) => one.textContent.includes(name))!;
    await place.click(box.querySelector('input')!);
    await place.press(place.find('fl-choose-codes input'), 'Escape');
  };

  beforeEach(async () => {
    const bench = new Bench();
    const codes = ['Worry', 'Help'].map((name) => bench.addCode(name)) as [Id, Id];
    cases = {};
    for (const [name, has] of [
      ['Ann', [0, 1]],
      ['Bob', [0]],
      ['Cy', [1]],
      ['Di', []],
    ] as const) {
      bench.run(addCase(name));
      cases[name] = Object.keys(bench.state.tables.case).at(-1)!;
      if (name === 'Di') continue;
      const document = bench.addDocument(`Talk with ${name}`, ['We waited at the pier for the last boat.']);
      bench.run(ownDocuments(cases[name], [document.id], true));
      for (const code of has) bench.code(document, 3 + code * 10, 12 + code * 10, codes[code]!);
    }
    place = await drawn(Propositions, bench, {}, [analysisHere], { width: 1100, height: 800 });
    for (const text of bench.texts.values()) TestBed.inject(TextCache).put(text, null);
    TestBed.inject(PropositionDraft).id.set(null);
    await place.settle();
  });

  const make = async (name: string) => {
    place.answers.text = name;
    await place.click(place.button('New proposition…'));
  };

  it('are built from what cases have, and show who speaks for and against, with passages and notes', async () => {
    expect(place.find('.empty').textContent).toContain('Hold a sentence against the material');
    await make('Who worries gets help');
    expect(place.find('.empty').textContent).toContain('What is said of them?');
    await chooseCode('Of whom it is said', 'Worry');
    await chooseCode('What is said of them', 'Help');
    await answered();
    expect([rows('for'), rows('against'), rows('nothing')]).toEqual([['Ann'], ['Bob'], ['Cy']]);
    expect(place.find('[data-summary]').textContent).toBe('1 for it, 1 against it, of 3 participants');
    expect(place.find('.absent').textContent).toContain('Of 1 more');
    await place.click(place.button('Bob'));
    await until(
      () => place.all('fl-evidence').length > 0 && place.find('fl-evidence').textContent.includes('waited'),
      () => TestBed.tick(),
    );
    const note = place.find<HTMLTextAreaElement>('[aria-label="Note on Bob"]');
    await place.type(note, 'He says he needs none.');
    await place.type(note, 'He says he needs none.', 'change');
    expect(Object.values(table())[0]!.notes).toEqual([{ caseId: cases['Bob']!, note: 'He says he needs none.' }]);
  });

  it('can say that something is not there, follow the scope, and be taken back', async () => {
    await make('Nobody who worries gets help');
    await chooseCode('Of whom it is said', 'Worry');
    await chooseCode('What is said of them', 'Help');
    await place.click(place.all('fl-claim-list')[1]!.querySelector<HTMLElement>('fl-part button')!);
    await place.click(place.button('have no passage that'));
    await answered();
    await until(
      () => rows('for').join() === 'Bob',
      () => TestBed.tick(),
    );
    expect(rows('against')).toEqual(['Ann']);
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [{ ofCases: [cases['Ann']!] }] } }));
    await until(
      () => rows('for').length === 0,
      () => TestBed.tick(),
    );
    expect([rows('against'), rows('nothing')]).toEqual([['Ann'], []]);
    place.session.undo();
    await until(
      () => rows('for').join() === 'Ann',
      () => TestBed.tick(),
    );
  });

  it('tell what they say otherwise since they were last seen, and are no measure of what they say when that is changed', async () => {
    await make('Who worries gets help');
    await chooseCode('Of whom it is said', 'Worry');
    await chooseCode('What is said of them', 'Help');
    await answered();
    await place.click(place.button('All seen'));
    expect(place.find('[data-since]').textContent).toContain('nothing else since');
    const bob = Object.values(TestBed.inject(Store).selectSignal(selectData)()!.tables.document).find(
      (one) => one.title === 'Talk with Bob',
    )!;
    const help = Object.values(TestBed.inject(Store).selectSignal(selectData)()!.tables.code).find((one) => one.name === 'Help')!;
    place.session.run(codePlace({ documentId: bob.id, place: { start: 13, end: 22 }, codeIds: [help.id] }));
    await until(
      () => rows('for').length === 2,
      () => TestBed.tick(),
    );
    expect(place.find('[data-since]').textContent).toContain('1 more for it, 1 no longer against it since');
    expect(place.texts('[data-verdict=for] .second').at(-1)).toBe('new');
    place.session.run(deleteCases([cases['Ann']!]));
    await until(
      () => Object.values(table())[0]!.seen!.speakFor.length === 0,
      () => TestBed.tick(),
    );
    place.session.run(editProposition(Object.keys(table())[0]!, { where: [] }));
    await place.settle();
    expect(place.all('[data-since]')).toEqual([]);
  });

  it('lose a note with its case, and change to another by its name', async () => {
    await make('One');
    await make('Two');
    expect(place.find('.sentence strong').textContent).toBe('Two');
    await place.click(place.button('One'));
    expect(place.find('.sentence strong').textContent).toBe('One');
    place.session.run(addProposition({ name: 'Three', where: [], then: [] }));
    expect(place.find('.sentence strong').textContent).toBe('One');
    await place.click(place.button('Delete'));
    expect(place.texts('nav[aria-label=Propositions] button')).toEqual(['Three', 'Two']);
    place.session.run(deleteCases([cases['Bob']!]));
    await place.settle();
    expect(
      Object.values(table())
        .map((one) => one.name)
        .sort(),
    ).toEqual(['Three', 'Two']);
  });
});
