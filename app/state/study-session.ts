import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { changeOf, type JournalEntry } from '@core/change/journal';
import { CommandError, type Action, type Command } from '@core/change/command';
import { ChangeConflictError } from '@core/change/apply';
import type { Text } from '@core/model/document';
import { randomId, type Id } from '@core/model/ids';
import type { EntryPlace } from '../workers/files.worker';
import { StaleTabError, StudyStorage, type Backup } from '../storage/study-storage';
import type { JournalFilter, JournalPage } from '../storage/journal-search';
import { StudyChannel } from '../storage/study-channel';
import { WriterLock } from '../storage/writer-lock';
import { Notices } from './notices';
import { RecentEntries } from './recent-entries';
import { StudyActions } from './study.actions';
import { studyFeature, type StudyFeature } from './study.reducer';
import { TextCache } from './text-cache';

const ELSEWHERE = 'This study is open for work in another tab. Choose “work here” at the top to go on in this one.';
const BUSY = 'Something large is being stored. Wait until it is done.';

/**
 * The open study of this tab: runs commands, undoes and redoes, and keeps the study on disk. Everything a
 * researcher does goes through {@link run}.
 */
@Injectable({ providedIn: 'root' })
export class StudySession {
  private readonly store = inject(Store);
  private readonly notices = inject(Notices);
  private readonly texts = inject(TextCache);
  private readonly feature = this.store.selectSignal(studyFeature.selectStudyState);
  private storage: StudyStorage | null = null;
  private lock: WriterLock | null = null;
  private channel: StudyChannel | null = null;
  /** Entries on the screen that are not on disk yet, oldest first, with the state after each. */
  private readonly pending: { readonly entry: JournalEntry; readonly after: StudyFeature['data'] }[] = [];
  private writing = false;
  /** A worker is writing an entry. */
  private away = false;
  private emptied: (() => void)[] = [];
  /** The newest entries, so that undoing them need not wait for the disk. */
  private readonly recent = new RecentEntries();

  /** Opens a study in this tab, as its writer if no other tab is. @throws NoSuchStudyError, NewerVersionError */
  async open(studyId: Id): Promise<void> {
    if (this.feature().data?.study.id === studyId && this.storage) return;
    await this.close();
    this.storage = await StudyStorage.of(studyId);
    this.texts.use(this.storage);
    this.lock = new WriterLock(studyId, () => this.store.dispatch(StudyActions.roleChanged({ role: 'follower' })));
    this.channel = new StudyChannel(studyId, (entry) => this.follow(entry));
    const mayWrite = await this.lock.acquire();
    this.store.dispatch(StudyActions.opened({ opened: await this.storage.open(), role: mayWrite ? 'writer' : 'follower' }));
  }

  /** Closes the study once everything is on disk. */
  async close(): Promise<void> {
    await this.settled();
    await this.lock?.giveBack();
    this.channel?.close();
    this.storage?.close();
    this.storage = this.lock = this.channel = null;
    this.texts.use(null);
    this.recent.clear();
    if (this.feature().data) this.store.dispatch(StudyActions.closed());
  }

  /** Becomes the writer in place of the tab that is. */
  async takeOver(): Promise<void> {
    if (!this.storage || !(await this.lock?.acquire(true))) return;
    await this.reread('writer');
  }

  /**
   * Carries out a command: on the screen at once, on disk next.
   * @returns what was done, or null if there was nothing to do or it was refused (and said so)
   */
  run(command: Command): Action | null {
    const { data, role } = this.feature();
    if (!data) return null;
    if (role !== 'writer' || this.away) {
      this.notices.refuse(this.away ? BUSY : ELSEWHERE);
      return null;
    }
    try {
      const action = command(data, { coderId: data.study.currentCoderId, now: Date.now(), newId: randomId });
      if (action) this.act(action.isNote ? 'note' : 'act', null, action);
      return action;
    } catch (error) {
      if (!(error instanceof CommandError)) throw error;
      this.notices.refuse(error.message);
      return null;
    }
  }

  /**
   * Carries out something large in a worker, which writes it to disk itself. Meanwhile nothing else can be done.
   * @param write is given the place in the journal, and gives back the entry without its new texts
   * @returns the entry, or null if it was refused or failed (and said so)
   */
  async runAway(write: (place: EntryPlace) => Promise<JournalEntry>): Promise<JournalEntry | null> {
    await this.settled();
    const { data, role, history } = this.feature();
    if (!data || role !== 'writer' || this.away) {
      this.notices.refuse(this.away ? BUSY : ELSEWHERE);
      return null;
    }
    this.away = true;
    try {
      const entry = await write({ studyId: data.study.id, seq: history.seq + 1, coderId: data.study.currentCoderId, now: Date.now() });
      for (const change of entry.change) if (change.type === 'text') this.texts.put(change.after, change.before);
      this.store.dispatch(StudyActions.acted({ entry }));
      this.store.dispatch(StudyActions.saved({ seq: entry.seq, at: entry.at }));
      this.channel?.tell(entry);
      // what the screen shows follows in a task of its own
      await new Promise((resolve) => setTimeout(resolve));
      return entry;
    } catch (error) {
      this.notices.refuse(`Nothing was stored: ${error instanceof Error ? error.message : String(error)}`);
      return null;
    } finally {
      this.away = false;
    }
  }

  /** Takes back the last act, or brings it back. @returns the sentence of the act, or null */
  async step(kind: 'undo' | 'redo'): Promise<string | null> {
    const { history, role } = this.feature();
    const seq = history[kind].at(-1);
    if (seq === undefined || role !== 'writer' || this.away) return null;
    const act = this.recent.get(seq) ?? this.pending.find(({ entry }) => entry.seq === seq)?.entry ?? (await this.storage?.entry(seq));
    if (!act || this.feature().history[kind].at(-1) !== seq) return null;
    try {
      const said = kind === 'undo' ? 'undid' : 'did again';
      this.act(kind, seq, { change: changeOf(act, kind), sentence: `${said}: ${act.sentence}`.slice(0, 500) });
      this.notices.say(`${kind === 'undo' ? 'Undone' : 'Done again'}: ${act.sentence}`);
      return act.sentence;
    } catch (error) {
      if (!(error instanceof ChangeConflictError)) throw error;
      this.notices.refuse(`This can no longer be taken back: ${error.message}`);
      return null;
    }
  }

  /** Tries again to write what could not be written. */
  retry(): void {
    void this.write();
  }

  /** Done when everything on the screen is on disk, or could not be written. */
  settled(): Promise<void> {
    if (this.pending.length === 0 || !this.writing) return Promise.resolve();
    return new Promise((resolve) => this.emptied.push(resolve));
  }

  /** Notes that a study file was made. */
  async noteBackup(backup: Backup): Promise<void> {
    await this.storage?.noteBackup(backup);
    this.store.dispatch(StudyActions.backupNoted(backup));
  }

  /** A page of the journal, newest first. */
  async journal(before: number, limit: number): Promise<JournalEntry[]> {
    await this.settled();
    return (await this.storage?.journal(before, limit)) ?? [];
  }

  /** Entries of the journal that touch something (see `touchesOf`), the newest first. */
  async touching(what: string, after = 0): Promise<JournalEntry[]> {
    await this.settled();
    return (await this.storage?.touching(what, after)) ?? [];
  }

  /** Entries of the journal by a filter, a page at a time, the newest first. */
  async findEntries(filter: JournalFilter, before: number, limit: number, goOn?: () => boolean): Promise<JournalPage> {
    await this.settled();
    return (await this.storage?.find(filter, before, limit, goOn)) ?? { entries: [], next: null };
  }

  /** Makes ready what finding in a long journal needs, in the background. @param goOn asked again and again; false ends it */
  async digestJournal(goOn: () => boolean): Promise<void> {
    await this.settled();
    await this.storage?.digestJournal(this.feature().history.seq, goOn);
  }

  /** Entries made at or after a moment, in no order. */
  async since(time: number): Promise<JournalEntry[]> {
    await this.settled();
    return (await this.storage?.since(time)) ?? [];
  }

  private act(kind: JournalEntry['kind'], of: number | null, action: Action): void {
    const { data, history } = this.feature();
    const entry: JournalEntry = {
      seq: history.seq + 1,
      at: Date.now(),
      coderId: data!.study.currentCoderId,
      kind,
      of,
      sentence: action.sentence,
      change: action.change,
    };
    for (const change of action.change) if (change.type === 'text') this.texts.put(change.after, change.before);
    this.store.dispatch(StudyActions.acted({ entry }));
    this.recent.add(entry);
    this.pending.push({ entry, after: this.feature().data });
    void this.write();
  }

  private async write(): Promise<void> {
    if (this.writing || !this.storage) return;
    this.writing = true;
    try {
      for (let next = this.pending[0]; next; next = this.pending[0]) {
        await this.storage.commit(next.entry, next.after!);
        this.pending.shift();
        this.store.dispatch(StudyActions.saved({ seq: next.entry.seq, at: Date.now() }));
        this.channel?.tell(next.entry);
      }
    } catch (error) {
      await this.writeFailed(error);
    } finally {
      this.writing = false;
      for (const done of this.emptied.splice(0)) done();
    }
  }

  private async writeFailed(error: unknown): Promise<void> {
    if (error instanceof StaleTabError) {
      this.pending.length = 0;
      await this.reread('follower');
      this.notices.refuse(error.message);
      return;
    }
    const full = error instanceof Error && /quota/i.test(`${error.name} ${error.message}`);
    const message = full
      ? 'The browser’s storage is full. Make room on the disk, then try again.'
      : `Writing to disk failed (${error instanceof Error ? error.message : String(error)}).`;
    this.store.dispatch(StudyActions.saveFailed({ message }));
  }

  private follow(entry: JournalEntry | null): void {
    const { history, role } = this.feature();
    if (role === 'writer') return;
    if (entry?.seq !== history.seq + 1) void this.reread('follower');
    else this.store.dispatch(StudyActions.followed({ entry }));
  }

  private async reread(role: 'writer' | 'follower'): Promise<void> {
    if (!this.storage) return;
    this.texts.use(this.storage);
    this.recent.clear();
    this.store.dispatch(StudyActions.opened({ opened: await this.storage.open(), role }));
  }

  /** Texts of documents, from memory or disk. */
  async textsOf(documentIds: readonly Id[]): Promise<Text[]> {
    return (await Promise.all(documentIds.map((id) => this.texts.get(id)))).filter((text) => text !== null);
  }
}
