import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addFolder, editDocument, moveDocuments } from '@core/commands/documents';
import { addCase, editSpeaker } from '@core/commands/cases';
import { correctTexts } from '@core/commands/correct-text';
import { addSet, deleteSet } from '@core/commands/sets';
import { workAs } from '@core/commands/study';
import { Bench } from '@core/testing/make';
import { ShownHereList } from '../state/shown-here';
import { analysisHere } from '../testing/analysis-here';
import { until } from '../testing/until';
import { ScopeActions } from '../state/study.actions';
import { selectDocuments, selectScopedDocuments, selectScopedPassages, selectSets } from '../state/study.selectors';
import { drawn, type Drawn } from '../testing/component-with-study';
import { ScopeLine } from './scope-line';

describe('the scope sentence', () => {
  let line: Drawn<ScopeLine>;
  const left = () => line.find('[data-scope-left]').textContent;
  const parts = () => line.texts(':scope > .part, :scope > .named > .part');
  const scoped = () =>
    TestBed.inject(Store)
      .selectSignal(selectScopedDocuments)()
      .map((one) => one.title);
  const choose = async (part: string, entry: string) => {
    await line.click(line.button(part));
    await line.click(line.button(entry));
  };

  /** Adds a part in the panel, which is opened where it is not. */
  const add = async (part: string) => {
    if (line.all('fl-scope-panel').length === 0) await line.click(line.find('.anchor > .act'));
    await line.click(line.find('fl-scope-panel .add'));
    await line.click(line.button(part));
  };
  const tick = async (of: string, name: string) => {
    await line.click(line.button(of));
    const box = line.all('fl-choose-several label').find((one) => one.textContent.trim().startsWith(name))!;
    await line.click(box.querySelector('input')!);
    await line.press(line.find('fl-choose-several input'), 'Escape');
  };
  const documents = () => TestBed.inject(Store).selectSignal(selectDocuments)();

  beforeEach(async () => {
    const bench = new Bench();
    const one = bench.addDocument('Interview 1', ['Ed: How late?', 'Ann: Very late.'], ['Ed', 'Ann']);
    const [two, three] = ['Interview 2', 'Minutes'].map((title) => bench.addDocument(title, ['Words.']));
    bench.run(addCase('Ann'));
    const [ann] = Object.keys(bench.state.tables.case);
    bench.run(editSpeaker(one.id, 0, { interviewer: true }));
    bench.run(editSpeaker(one.id, 1, { caseId: ann! }));
    const late = bench.addCode('Late');
    for (const [start, end] of [
      [4, 13],
      [19, 29],
      [8, 12],
    ] as const)
      bench.code(one, start, end, late);
    bench.run(editDocument(three!.id, { kind: 'public document' }));
    bench.run(addFolder('Winter', null));
    bench.run(addFolder('January', Object.keys(bench.state.tables.folder)[0]!));
    const [winter, january] = Object.values(bench.state.tables.folder);
    bench.run(moveDocuments([one.id], winter!.id));
    bench.run(moveDocuments([two!.id], january!.id));
    bench.run(addSet('document', 'Night talk', [two!.id, three!.id]));
    bench.run(workAs('Jon'));
    line = await drawn(ScopeLine, bench, {}, [analysisHere], { width: 900, height: 40 });
  });

  it('says what is looked at, and what that leaves', () => {
    expect(parts()).toEqual(['all documents', 'all coders']);
    expect(left()).toBe('3 of 3 documents');
  });

  it('narrows by kind, and by any part that is built in the panel: folders with what lies in them, sets', async () => {
    await choose('all documents', 'public documents');
    expect([parts()[0], left().startsWith('1 of 3 documents')]).toEqual(['public documents', true]);
    await line.click(line.button('look at all'));
    expect(left()).toBe('3 of 3 documents');
    await add('lie in documents, folders or sets');
    await tick('Find a folder: a folder', 'Winter');
    expect(scoped()).toEqual(['Interview 2', 'Interview 1']);
    await tick('Find a set: a set', 'Night talk');
    expect(scoped().sort()).toEqual(['Interview 1', 'Interview 2', 'Minutes']);
    expect(parts()).toContain('in Winter or the set Night talk');
  });

  it('narrows by two things at once, says how much each leaves, and takes one away with one click', async () => {
    await choose('all documents', 'interviews');
    await add('are spoken by');
    await until(
      () => line.texts('.count').length === 6,
      () => TestBed.tick(),
    );
    // documents, participants and passages, each part by itself
    expect(line.texts('.count')).toEqual(['2', '1', '3', '3', '1', '1']);
    expect(left()).toBe('2 of 3 documents · 1 of 1 participant · 1 of 3 passages');
    expect(parts()).toEqual(['interviews', 'without the interviewer', 'all coders']);
    await line.click(line.button('Without: without the interviewer'));
    expect(parts()).not.toContain('without the interviewer');
    expect(scoped().sort()).toEqual(['Interview 1', 'Interview 2']);
  });

  it('goes by who speaks as the text is now', async () => {
    await add('are spoken by');
    const passages = () => TestBed.inject(Store).selectSignal(selectScopedPassages)();
    const [text] = await line.session.textsOf([Object.values(documents()).find((one) => one.title === 'Interview 1')!.id]);
    expect(Object.values(passages()).map((columns) => [...columns.starts])).toEqual([[19]]);
    // what Ed asks is longer now, and what stands behind it has moved
    line.session.run(correctTexts([{ text: text!, edits: [{ from: 4, to: 4, insert: 'So then, ' }] }]));
    expect(Object.values(passages()).map((columns) => [...columns.starts])).toEqual([[28]]);
    await line.click(line.button('look at all'));
    expect(Object.values(passages()).map((columns) => columns.starts.length)).toEqual([3]);
  });

  it('keeps scopes by name, and goes back to one with one click', async () => {
    await choose('all documents', 'public documents');
    await line.click(line.find('.anchor > .act'));
    line.answers.text = 'Papers';
    await line.click(line.button('keep this scope…'));
    await line.click(line.button('look at all'));
    expect(scoped().length).toBe(3);
    // a press elsewhere closes the panel
    await line.click(line.find('.anchor > .act'));
    await line.click(line.button('Papers'));
    expect(scoped()).toEqual(['Minutes']);
    // what is looked at needs no name
    await line.click(line.button('Delete the scope Papers'));
    expect([scoped(), line.all('.kept').length]).toEqual([['Minutes'], 0]);
  });

  it('opens and closes its panel by the same word, and by Escape', async () => {
    const panels = () => line.all('fl-scope-panel').length;
    await line.click(line.find('.anchor > .act'));
    expect(panels()).toBe(1);
    await line.click(line.find('.anchor > .act'));
    expect(panels()).toBe(0);
    await line.click(line.find('.anchor > .act'));
    await line.press(line.find('fl-scope-panel'), 'Escape');
    expect(panels()).toBe(0);
  });

  it('lets go of what is deleted while it is looked at', async () => {
    const [setId] = Object.keys(TestBed.inject(Store).selectSignal(selectSets)());
    TestBed.inject(Store).dispatch(
      ScopeActions.chosen({
        scope: { parts: [{ liesIn: { documentIds: [], folderIds: [], setIds: [setId!] } }, { kinds: ['interview'] }] },
      }),
    );
    await line.settle();
    expect(scoped()).toEqual(['Interview 2']);
    line.session.run(deleteSet(setId!));
    await line.settle();
    expect(scoped().sort()).toEqual(['Interview 1', 'Interview 2']);
    expect(parts()).toEqual(['interviews', 'all coders']);
  });

  it('names what else is on where one is, each a click from off', async () => {
    let off = 0;
    TestBed.inject(ShownHereList).parts.set([{ words: 'coded words dimmed', off: () => off++ }]);
    await line.settle();
    await line.click(line.button('coded words dimmed: end this'));
    expect(off).toBe(1);
  });
});
