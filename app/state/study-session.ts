import { AnalysisService } from '../workers/analysis-service';
import { carryOut } from '@core/commands/carry-out';
import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { changeOf, type JournalEntry } from '@core/change/journal';
import { CommandError, type Action, type Command } from '@core/change/command';
import { applyChange, ChangeConflictError } from '@core/change/apply';
import type { Change } from '@core/change/change';
import type { Text } from '@core/model/document';
import { randomId, type Id } from '@core/model/ids';
import type { EntrySlot } from '@core/filing/filing';
import { StaleTabError, StudyStorage, type Backup } from '../storage/study-storage';
import type { JournalFilter, JournalPage } from '../storage/journal-search';
import { StudyChannel } from '../storage/study-channel';
import { WriterLock } from '../storage/writer-lock';
import { contextOf } from './command-context';
import { Entrance } from './entrance';
import { MediaFiles } from './media-files';
import { Notices } from './notices';
import { OpenedHere } from './opened-here';
import type { Outcome, Session, Unsaved } from './session';
import { StudyActions } from './study.actions';
import { studyFeature } from './study.reducer';
import { TextCache } from './text-cache';

const ELSEWHERE = 'This study is open for work in another tab. Choose “work here” at the top to go on in this one.';
const BUSY = 'Something large is being stored. Wait until it is done.';
const TEXT_CHANGED = 'The text was changed meanwhile. Nothing was done; look at it as it is now, and do it again.';

/**
 * The open study of this tab: runs commands, undoes and redoes, and keeps the study on disk. Everything a
 * researcher does goes through {@link run} or {@link attempt}.
 */
@Injectable({ providedIn: 'root' })
export class StudySession implements Session {
  private readonly store = inject(Store);
  private readonly notices = inject(Notices);
  private readonly entrance = inject(Entrance);
  private readonly analysis = inject(AnalysisService);
  private readonly texts = inject(TextCache);
  private readonly media = inject(MediaFiles);
  private readonly feature = this.store.selectSignal(studyFeature.selectStudyState);
  private here: OpenedHere | null = null;
  /** Opening and closing follow each other, however fast somebody goes from study to study. */
  private turn: Promise<unknown> = Promise.resolve();
  /** Steps that are still being taken. */
  private stepping: Promise<void> | null = null;

  /** Checks a change against the schemas; loaded with the study. */
  private check: (change: Change) => void = () => undefined;

  open(studyId: Id): Promise<void> {
    return this.inTurn(async () => {
      if (this.here?.id === studyId && this.feature().data?.study.id === studyId) return;
      if (!(await this.end())) throw new Error('The study that is open is not on disk yet. Try again at the top first.');
      const [storage, { checkChange }] = await Promise.all([StudyStorage.of(studyId), import('@core/change/check-change')]);
      this.check = checkChange;
      const lock = new WriterLock(studyId, () => {
        if (this.here === here) this.store.dispatch(StudyActions.roleChanged({ role: 'follower' }));
      });
      const channel = new StudyChannel(studyId, (entry) => void this.follow(here, entry));
      const here = new OpenedHere(studyId, storage, lock, channel);
      try {
        const mayWrite = await lock.acquire();
        const opened = await storage.open();
        this.here = here;
        this.texts.use(storage);
        this.media.use(storage);
        this.analysis.studyReadAnew();
        this.store.dispatch(StudyActions.opened({ opened, role: mayWrite ? 'writer' : 'follower' }));
      } catch (error) {
        await here.end();
        throw error;
      }
    });
  }

  close(): Promise<boolean> {
    return this.inTurn(() => this.end());
  }

  unsaved(): Unsaved | null {
    if (!this.here || this.here.pending.length === 0) return null;
    return {
      steps: this.here.pending.map(({ entry }) => entry.sentence),
      reason: this.feature().save.trouble ?? 'It is still being written.',
    };
  }

  giveUp(): void {
    this.here?.giveUp();
  }

  private inTurn<T>(action: () => Promise<T>): Promise<T> {
    const next = this.turn.then(action, action);
    this.turn = next.catch(() => undefined);
    return next;
  }

  private async end(): Promise<boolean> {
    const { here } = this;
    if (!here) return true;
    await here.settled();
    if (here.pending.length > 0) return false;
    this.here = null;
    this.texts.use(null);
    this.media.use(null);
    if (this.feature().data) this.store.dispatch(StudyActions.closed());
    await here.end();
    return true;
  }

  async takeOver(): Promise<void> {
    const { here } = this;
    if (!here || !(await here.lock.acquire(true))) return;
    await this.reread(here, 'writer');
  }

  run(command: Command, media?: ReadonlyMap<string, Blob>): Action | null {
    const { done, refused } = this.attempt(command, media);
    if (refused) this.notices.refuse(refused);
    return done;
  }

  attempt(command: Command, media?: ReadonlyMap<string, Blob>): Outcome {
    const { data, role, answered } = this.feature();
    const { here } = this;
    if (!data || !here) return { done: null, refused: null };
    if (role !== 'writer' || here.away) return { done: null, refused: here.away ? BUSY : ELSEWHERE };
    try {
      const action = carryOut(command, data, contextOf(data, answered, Date.now(), randomId));
      if (action) {
        this.check(action.change);
        if (action.change.some((one) => one.type === 'text' && one.before && !this.texts.isCurrent(one.before)))
          return { done: null, refused: TEXT_CHANGED };
        this.act(here, action.isNote ? 'note' : 'act', null, action, media);
      }
      return { done: action, refused: null };
    } catch (error) {
      if (error instanceof CommandError) return { done: null, refused: error.message };
      if (error instanceof ChangeConflictError) return { done: null, refused: `This can no longer be done: ${error.message}` };
      throw error;
    }
  }

  async runAway(write: (place: EntrySlot) => Promise<JournalEntry>): Promise<JournalEntry | null> {
    await this.settled();
    const { data, role, history } = this.feature();
    const { here } = this;
    const unsaved = this.unsaved();
    if (!data || !here || role !== 'writer' || here.away || unsaved) {
      const steps = unsaved?.steps.length === 1 ? 'the last step is' : `the last ${unsaved?.steps.length} steps are`;
      this.notices.refuse(
        here?.away
          ? BUSY
          : unsaved
            ? `Nothing was stored: ${steps} not on disk yet. ${unsaved.reason} Try that again at the top first.`
            : ELSEWHERE,
      );
      return null;
    }
    here.away = true;
    try {
      const entry = await write({ studyId: data.study.id, seq: history.seq + 1, coderId: data.study.currentCoderId, now: Date.now() });
      if (this.here !== here) return entry;
      this.entrance.enter(entry, 'here');
      this.store.dispatch(StudyActions.saved({ seq: entry.seq, at: entry.at }));
      here.channel.tell(entry);
      // what the screen shows follows in a task of its own
      await new Promise((resolve) => setTimeout(resolve));
      return entry;
    } catch (error) {
      this.notices.refuse(`Nothing was stored: ${whyNotWritten(error)}`);
      return null;
    } finally {
      here.away = false;
    }
  }

  async step(kind: 'undo' | 'redo'): Promise<string | null> {
    const earlier = this.stepping;
    const step = earlier ? earlier.then(() => this.stepNow(kind)) : this.stepNow(kind);
    // pressed again while an act is still read from the disk: a step further, not the same one once more
    const settled = step.then(
      () => undefined,
      () => undefined,
    );
    this.stepping = settled;
    void settled.then(() => {
      if (this.stepping === settled) this.stepping = null;
    });
    return step;
  }

  private async stepNow(kind: 'undo' | 'redo'): Promise<string | null> {
    const { history, role } = this.feature();
    const { here } = this;
    const seq = history[kind].at(-1);
    if (seq === undefined || !here || role !== 'writer' || here.away) return null;
    const act = here.recent.get(seq) ?? here.pending.find(({ entry }) => entry.seq === seq)?.entry ?? (await here.storage.entry(seq));
    if (!act || this.here !== here || this.feature().history[kind].at(-1) !== seq) return null;
    try {
      const said = kind === 'undo' ? 'undid' : 'did again';
      this.act(here, kind, seq, { change: changeOf(act, kind), sentence: `${said}: ${act.sentence}`.slice(0, 500) });
      this.notices.say(`${kind === 'undo' ? 'Undone' : 'Done again'}: ${act.sentence}`);
      return act.sentence;
    } catch (error) {
      if (!(error instanceof ChangeConflictError)) throw error;
      this.notices.refuse(`This can no longer be taken back: ${error.message}`);
      return null;
    }
  }

  retry(): void {
    if (this.here) void this.write(this.here);
  }

  settled(): Promise<void> {
    return this.here?.settled() ?? Promise.resolve();
  }

  async noteBackup(backup: Backup): Promise<void> {
    await this.here?.storage.noteBackup(backup);
    this.store.dispatch(StudyActions.backupNoted(backup));
  }

  async journal(before: number, limit: number): Promise<JournalEntry[]> {
    await this.settled();
    return (await this.here?.storage.journal(before, limit)) ?? [];
  }

  async touching(what: string, after = 0): Promise<JournalEntry[]> {
    await this.settled();
    return (await this.here?.storage.touching(what, after)) ?? [];
  }

  async findEntries(filter: JournalFilter, before: number, limit: number, goOn?: () => boolean): Promise<JournalPage> {
    await this.settled();
    return (await this.here?.storage.find(filter, before, limit, goOn)) ?? { entries: [], next: null };
  }

  async digestJournal(goOn: () => boolean): Promise<void> {
    await this.settled();
    await this.here?.storage.digestJournal(this.feature().history.seq, goOn);
  }

  async since(time: number): Promise<JournalEntry[]> {
    await this.settled();
    return (await this.here?.storage.since(time)) ?? [];
  }

  private act(here: OpenedHere, kind: JournalEntry['kind'], of: number | null, action: Action, media?: ReadonlyMap<string, Blob>): void {
    const { data, history } = this.feature();
    const entry: JournalEntry = {
      seq: history.seq + 1,
      at: Date.now(),
      coderId: data!.study.currentCoderId,
      kind,
      of,
      sentence: lineOf(action.sentence),
      change: action.change,
    };
    // tried first: what does not fit must not get as far as the texts and the store
    applyChange(data!, action.change);
    this.entrance.enter(entry, 'here');
    here.recent.add(entry);
    here.pending.push({ entry, after: this.feature().data, media });
    void this.write(here);
  }

  private async write(here: OpenedHere): Promise<void> {
    if (here.writing) return;
    here.writing = true;
    try {
      for (let next = here.pending[0]; next; next = here.pending[0]) {
        await here.storage.commit(next.entry, next.after!, next.media);
        here.pending.shift();
        if (this.here === here) this.store.dispatch(StudyActions.saved({ seq: next.entry.seq, at: Date.now() }));
        here.channel.tell(next.entry);
      }
    } catch (error) {
      await this.writeFailed(here, error);
    } finally {
      here.writing = false;
      here.nowSettled();
    }
  }

  private async writeFailed(here: OpenedHere, error: unknown): Promise<void> {
    if (error instanceof StaleTabError) return this.overtaken(here);
    const message = isFull(error) ? whyNotWritten(error) : `Writing to disk failed (${whyNotWritten(error)}).`;
    if (this.here === here) this.store.dispatch(StudyActions.saveFailed({ message }));
  }

  /** Another tab has written: what waits here cannot be written any more, and is named. */
  private async overtaken(here: OpenedHere): Promise<void> {
    const lost = here.giveUp();
    await this.reread(here, 'follower');
    const named = lost.slice(0, 3).join('; ') + (lost.length > 3 ? ` and ${lost.length - 3} more` : '');
    this.notices.refuse(
      `The study was changed in another tab and is read anew. This was not stored and has to be done again: ${named || 'the last action'}.`,
    );
  }

  private async follow(here: OpenedHere, entry: JournalEntry | null): Promise<void> {
    const { history, role } = this.feature();
    if (this.here !== here || role === 'writer') return;
    if (here.pending.length > 0) return this.overtaken(here);
    if (entry?.seq !== history.seq + 1) return this.reread(here, 'follower');
    this.entrance.enter(entry, 'elsewhere');
  }

  private async reread(here: OpenedHere, role: 'writer' | 'follower'): Promise<void> {
    const opened = await here.storage.open();
    if (this.here !== here) return;
    this.texts.use(here.storage);
    this.media.use(here.storage);
    this.analysis.studyReadAnew();
    here.recent.clear();
    this.store.dispatch(StudyActions.opened({ opened, role }));
  }

  async textsOf(documentIds: readonly Id[]): Promise<Text[]> {
    return (await Promise.all(documentIds.map((id) => this.texts.get(id)))).filter((text) => text !== null);
  }
}

const isFull = (error: unknown): boolean => error instanceof Error && /quota/i.test(`${error.name} ${error.message}`);

const whyNotWritten = (error: unknown): string =>
  isFull(error)
    ? 'The browser’s storage is full. Make room on the disk, then try again.'
    : error instanceof Error
      ? error.message
      : String(error);

/** A sentence for the log: one line, without what a line may not hold. */
// eslint-disable-next-line no-control-regex -- names pasted from elsewhere may hold any sign
const lineOf = (sentence: string): string => sentence.replace(/[\u0000-\u001f\u007f]+/g, ' ').slice(0, 500);
