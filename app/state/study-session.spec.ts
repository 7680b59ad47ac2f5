import { TestBed } from '@angular/core/testing';
import type { Store } from '@ngrx/store';
import Dexie from 'dexie';
import { addCode } from '@core/commands/codes';
import { addFolder } from '@core/commands/documents';
import type { JournalEntry } from '@core/change/journal';
import { added, updated } from '@core/change/change';
import { correctTexts } from '@core/commands/correct-text';
import type { Code } from '@core/model/code';
import type { Document, Text } from '@core/model/document';
import { noteExport } from '@core/commands/study';
import { randomId, type Id } from '@core/model/ids';
import { createEmptyStudy } from '../storage/create-study';
import { StudyStorage } from '../storage/study-storage';
import { Notices } from './notices';
import { TextCache } from './text-cache';
import { StudySession } from './study-session';
import { selectAllSaved, selectCodes, selectData, selectFolders, selectHistory, selectRole, selectSave } from './study.selectors';
import { emptyStore } from '../testing/study-store';

describe('the session', () => {
  let session: StudySession;
  let store: Store;
  let studyId: Id;
  const names = () => Object.values(store.selectSignal(selectCodes)()).map((code) => code.name);

  beforeEach(async () => {
    store = emptyStore();
    session = TestBed.inject(StudySession);
    studyId = await createEmptyStudy('Session', 'Ada', randomId, 1);
    await session.open(studyId);
  });

  afterEach(async () => {
    await session.close();
    for (const name of await Dexie.getDatabaseNames()) await Dexie.delete(name);
  });

  it('shows what was done at once, and says saved only when it is on disk', async () => {
    session.run(addCode({ name: 'Worry' }));
    expect(names()).toEqual(['Worry']);
    expect(store.selectSignal(selectAllSaved)()).toBeFalse();
    await session.settled();
    expect(store.selectSignal(selectAllSaved)()).toBeTrue();
    const there = await StudyStorage.of(studyId);
    expect(Object.keys((await there.open()).state.tables.code).length).toBe(1);
    there.close();
  });

  it('undoes and redoes, also after it was closed and opened again', async () => {
    session.run(addCode({ name: 'One' }));
    session.run(addCode({ name: 'Two' }));
    expect(await session.step('undo')).toBe('made the code Two');
    await session.close();
    await session.open(studyId);
    expect(names()).toEqual(['One']);
    await session.step('undo');
    expect(names()).toEqual([]);
    await session.step('redo');
    await session.step('redo');
    expect(names().sort()).toEqual(['One', 'Two']);
    expect(await session.step('redo')).toBeNull();
  });

  it('takes a step for every press, also where acts are read from the disk first', async () => {
    for (const name of ['One', 'Two', 'Three']) session.run(addCode({ name }));
    await session.close();
    await session.open(studyId);
    const steps = await Promise.all([session.step('undo'), session.step('undo'), session.step('undo'), session.step('undo')]);
    expect(steps).toEqual(['made the code Three', 'made the code Two', 'made the code One', null]);
    expect(names()).toEqual([]);
    expect(await Promise.all([session.step('redo'), session.step('undo')])).toEqual(['made the code One', 'made the code One']);
  });

  it('ends what could be done again with a new act', async () => {
    session.run(addCode({ name: 'One' }));
    await session.step('undo');
    session.run(addCode({ name: 'Other' }));
    expect(store.selectSignal(selectHistory)().redo).toEqual([]);
  });

  it('logs notes that undo passes over', async () => {
    session.run(addCode({ name: 'One' }));
    session.run(noteExport('the codebook'));
    await session.step('undo');
    expect(names()).toEqual([]);
    expect((await session.journal(99, 10)).map((entry) => [entry.kind, entry.sentence])).toEqual([
      ['undo', 'undid: made the code One'],
      ['note', 'exported the codebook'],
      ['act', 'made the code One'],
    ]);
  });

  it('refuses with the reason, and changes nothing', () => {
    session.run(addCode({ name: 'One' }));
    expect(session.run(addCode({ name: 'one' }))).toBeNull();
    expect(TestBed.inject(Notices).current()?.text).toContain('already a code “One”');
    expect(names()).toEqual(['One']);
  });

  it('keeps what could not be written on the screen, says so, and writes it when tried again', async () => {
    const commit = spyOn(StudyStorage.prototype, 'commit').and.rejectWith(new DOMException('No room.', 'QuotaExceededError'));
    session.run(addCode({ name: 'One' }));
    await session.settled();
    expect(store.selectSignal(selectSave)().trouble).toContain('storage is full');
    expect(names()).toEqual(['One']);
    commit.and.callThrough();
    session.retry();
    await session.settled();
    expect(store.selectSignal(selectAllSaved)()).toBeTrue();
  });

  it('keeps what could not be written in its own study: another is not opened over it, nor anything stored beside it', async () => {
    const other = await createEmptyStudy('Other', 'Ada', randomId, 1);
    const commit = spyOn(StudyStorage.prototype, 'commit').and.rejectWith(new Error('no'));
    session.run(addCode({ name: 'One' }));
    expect(await session.close()).toBeFalse();
    await expectAsync(session.open(other)).toBeRejectedWithError(/not on disk yet/);
    expect(names()).toEqual(['One']);
    expect(session.unsaved()).toEqual({ steps: ['made the code One'], reason: 'Writing to disk failed (no).' });
    expect(await session.runAway(() => fail('was begun') as never)).toBeNull();
    expect(TestBed.inject(Notices).current()?.text).toContain('the last step is not on disk yet');
    session.giveUp();
    commit.and.callThrough();
    await session.open(other);
    session.run(addCode({ name: 'Elsewhere' }));
    await session.settled();
    expect(names()).toEqual(['Elsewhere']);
    expect([store.selectSignal(selectRole)(), store.selectSignal(selectAllSaved)()]).toEqual(['writer', true]);
    await session.open(studyId);
    expect(names()).toEqual([]);
  });

  it('opens studies one after the other, however fast they are asked for', async () => {
    const other = await createEmptyStudy('Other', 'Ada', randomId, 1);
    await Promise.all([session.open(other), session.open(studyId), session.open(other)]);
    expect(store.selectSignal(selectData)()?.study.id).toBe(other);
    session.run(addCode({ name: 'There' }));
    await session.settled();
    expect(store.selectSignal(selectAllSaved)()).toBeTrue();
  });

  it('says what is lost when another tab has written first', async () => {
    session.run(addCode({ name: 'Base' }));
    await session.settled();
    const db = await StudyStorage.of(studyId);
    const { state, history } = await db.open();
    const between = addFolder('Between')(state, { coderId: state.study.currentCoderId, now: 5, newId: randomId })!;
    await db.commit({ seq: history.seq + 1, at: 5, coderId: state.study.currentCoderId, kind: 'act', of: null, ...between }, null);
    db.close();
    session.run(addCode({ name: 'Lost' }));
    await session.settled();
    expect(names()).toEqual(['Base']);
    expect(TestBed.inject(Notices).current()?.text).toContain('has to be done again: made the code Lost');
    expect(session.unsaved()).toBeNull();
  });

  it('applies nothing that no study file could be opened with, and can still undo everything', async () => {
    const made = session.run(addCode({ name: 'One' }))!.change[0]!.after as Code;
    const refused = session.attempt(() => ({
      change: [updated('code', made, { definition: 'x'.repeat(2_000_001) })],
      sentence: 'did',
    })).refused;
    expect(refused).toContain('The code “One” cannot be stored: its definition is longer');
    expect(await session.step('undo')).toBe('made the code One');
  });

  it('refuses a correction of a text that has changed meanwhile, and tells whoever shows texts of each change', async () => {
    const texts = TestBed.inject(TextCache);
    const [text, document] = textAndDocument(randomId(), 'They held the boat.');
    session.run(() => ({ change: [added('document', document), added('text', text)], sentence: 'brought in' }));
    const shown = texts.changes();
    const stale = (await texts.get(document.id))!;
    session.run(correctTexts([{ text: stale, edits: [{ from: 0, to: 4, insert: 'We' }] }]));
    expect(texts.changes()).toBeGreaterThan(shown);
    expect(session.attempt(correctTexts([{ text: stale, edits: [{ from: 5, to: 9, insert: 'kept' }] }])).refused).toContain(
      'changed meanwhile',
    );
    expect((await texts.get(document.id))!.text).toBe('We held the boat.');
    await session.step('undo');
    expect((await texts.get(document.id))!.text).toBe('They held the boat.');
  });

  it('takes in what a worker has written, and undoes it from disk', async () => {
    const written = addFolder('Brought in');
    const entry = await session.runAway(async ({ seq, coderId, now }) => {
      // nothing else is done meanwhile
      expect(session.run(addCode({ name: 'Between' }))).toBeNull();
      const { change, sentence } = written(store.selectSignal(selectData)()!, { coderId, now, newId: randomId })!;
      const made: JournalEntry = { seq, at: now, coderId, kind: 'act', of: null, sentence, change };
      const storage = await StudyStorage.of(studyId);
      await storage.commit(made, null);
      storage.close();
      return made;
    });
    expect(entry?.sentence).toBe('made the folder Brought in');
    const folders = () => Object.keys(store.selectSignal(selectFolders)()).length;
    expect([folders(), store.selectSignal(selectAllSaved)()]).toEqual([1, true]);
    expect(session.run(addCode({ name: 'After' }))).not.toBeNull();
    await session.step('undo');
    await session.step('undo');
    expect([folders(), names()]).toEqual([0, []]);
  });

  it('changes nothing when the worker fails, and says so', async () => {
    expect(await session.runAway(() => Promise.reject(new Error('the disk is full')))).toBeNull();
    expect(TestBed.inject(Notices).current()?.text).toContain('Nothing was stored: the disk is full');
    expect(session.run(addCode({ name: 'One' }))).not.toBeNull();
  });

  it('lets only the writer act', () => {
    store.dispatch({ type: '[Study] Role Changed', role: 'follower' });
    expect(store.selectSignal(selectRole)()).toBe('follower');
    expect(session.run(addCode({ name: 'One' }))).toBeNull();
    expect(names()).toEqual([]);
  });
});

/** A text of one paragraph with its document. */
function textAndDocument(id: Id, words: string): [Text, Document] {
  const paragraphs = [{ start: 0, body: 0, end: words.length, speaker: -1, style: 'body' as const }];
  return [
    { id, text: words, paragraphs, emphasis: [], marks: [] },
    {
      id,
      title: 'Interview',
      ground: { of: 'text' },
      kind: 'interview',
      date: null,
      folderId: null,
      description: '',
      speakers: [],
      characters: words.length,
      words: words.split(' ').length,
      source: null,
      values: {},
      answers: [],
      createdAt: 1,
    },
  ];
}
