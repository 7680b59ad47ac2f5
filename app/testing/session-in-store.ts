import { inject, Injectable, type Provider } from '@angular/core';
import { Store } from '@ngrx/store';
import { CommandError, type Action, type Command } from '@core/change/command';
import { changeOf, type JournalEntry } from '@core/change/journal';
import { touchesOf } from '@core/change/touches';
import { carryOut } from '@core/commands/carry-out';
import type { EntrySlot } from '@core/filing/filing';
import { wishTest } from '@core/log/wish';
import type { Text } from '@core/model/document';
import { sequentialIds, type Id } from '@core/model/ids';
import { contextOf } from '../state/command-context';
import { Entrance } from '../state/entrance';
import type { Outcome, Session, Unsaved } from '../state/session';
import { StudyActions } from '../state/study.actions';
import { StudySession } from '../state/study-session';
import { studyFeature } from '../state/study.reducer';
import { TextCache } from '../state/text-cache';
import type { JournalFilter, JournalPage } from '../storage/journal-search';
import type { Backup } from '../storage/study-storage';
import { PAST } from './past';

/**
 * A session without a disk: commands are carried out on the study in the store and entries come in as they do in the
 * application, and the journal is kept in memory.
 */
@Injectable()
export class SessionInStore implements Session {
  private readonly store = inject(Store);
  private readonly feature = this.store.selectSignal(studyFeature.selectStudyState);
  private readonly newId = sequentialIds(23);
  private readonly texts = inject(TextCache);
  private readonly entrance = inject(Entrance);
  private readonly entries: JournalEntry[] = [...inject(PAST)].sort((a, b) => a.seq - b.seq);
  private clock = 1_000_000;
  readonly done: Action[] = [];
  readonly refused: string[] = [];

  run(command: Command): Action | null {
    return this.attempt(command).done;
  }

  attempt(command: Command): Outcome {
    const { data, answered } = this.feature();
    if (!data) return { done: null, refused: null };
    try {
      const action = carryOut(command, data, contextOf(data, answered, (this.clock += 1_000), this.newId));
      if (action) this.act(action);
      return { done: action, refused: null };
    } catch (error) {
      if (!(error instanceof CommandError)) throw error;
      this.refused.push(error.message);
      return { done: null, refused: error.message };
    }
  }

  async runAway(write: (place: EntrySlot) => Promise<JournalEntry>): Promise<JournalEntry | null> {
    const { data, history } = this.feature();
    const place = { studyId: data!.study.id, seq: history.seq + 1, coderId: data!.study.currentCoderId, now: (this.clock += 1_000) };
    const entry = await write(place);
    this.done.push(entry);
    this.enter(entry);
    return entry;
  }

  /** Takes back what was done last. */
  undo(): void {
    void this.step('undo');
    this.done.pop();
  }

  step(kind: 'undo' | 'redo'): Promise<string | null> {
    const of = this.feature().history[kind].at(-1);
    const act = this.entries.find((entry) => entry.seq === of);
    if (!act) return Promise.resolve(null);
    this.enter(this.entry({ change: changeOf(act, kind), sentence: `${kind}: ${act.sentence}` }, kind, act.seq));
    return Promise.resolve(act.sentence);
  }

  /** What asking to store again does. */
  onRetry: () => void = () => undefined;

  retry(): void {
    this.onRetry();
  }

  settled(): Promise<void> {
    return Promise.resolve();
  }

  /** What could not be written, where that is to be tried. */
  stuck: Unsaved | null = null;

  unsaved(): Unsaved | null {
    return this.stuck;
  }

  giveUp(): void {
    this.stuck = null;
  }

  /** The study is in the store already. */
  open(): Promise<void> {
    return Promise.resolve();
  }

  close(): Promise<boolean> {
    return Promise.resolve(this.stuck === null);
  }

  takeOver(): Promise<void> {
    return Promise.resolve();
  }

  noteBackup(backup: Backup): Promise<void> {
    this.store.dispatch(StudyActions.backupNoted(backup));
    return Promise.resolve();
  }

  textsOf(documentIds: readonly Id[]): Promise<Text[]> {
    return Promise.resolve(documentIds.flatMap((id) => this.texts.peek(id) ?? []));
  }

  journal(before: number, limit: number): Promise<JournalEntry[]> {
    return Promise.resolve(this.newestFirst((entry) => entry.seq < before).slice(0, limit));
  }

  touching(what: string, after = 0): Promise<JournalEntry[]> {
    return Promise.resolve(this.newestFirst((entry) => entry.seq > after && touchesOf(entry).includes(what)));
  }

  findEntries(filter: JournalFilter, before: number, limit: number): Promise<JournalPage> {
    const isWished = wishTest(filter);
    const entries = this.newestFirst(
      (entry) =>
        entry.seq < before &&
        isWished({ ...entry, change: () => entry.change }) &&
        (!filter.touching?.length || touchesOf(entry).some((one) => filter.touching!.includes(one))) &&
        (filter.fits?.(entry) ?? true),
    );
    return Promise.resolve({ entries: entries.slice(0, limit), next: entries.length > limit ? entries[limit - 1]!.seq : null });
  }

  digestJournal(): Promise<void> {
    return Promise.resolve();
  }

  since(time: number): Promise<JournalEntry[]> {
    return Promise.resolve(this.entries.filter((entry) => entry.at >= time));
  }

  /** Sentences of what was done, as the log would have them. */
  get sentences(): string[] {
    return this.done.map((action) => action.sentence);
  }

  private newestFirst(wanted: (entry: JournalEntry) => boolean): JournalEntry[] {
    return this.entries.filter(wanted).reverse();
  }

  private act(action: Action): void {
    this.done.push(action);
    this.enter(this.entry(action, action.isNote ? 'note' : 'act', null));
  }

  private entry({ change, sentence }: Action, kind: JournalEntry['kind'], of: number | null): JournalEntry {
    const { data, history } = this.feature();
    return { seq: history.seq + 1, at: this.clock, coderId: data!.study.currentCoderId, kind, of, sentence, change };
  }

  private enter(entry: JournalEntry): void {
    this.entries.push(entry);
    this.entrance.enter(entry, 'here');
  }
}

/** Gives components the session without a disk. */
export const sessionInStore: Provider[] = [SessionInStore, { provide: StudySession, useExisting: SessionInStore }];
