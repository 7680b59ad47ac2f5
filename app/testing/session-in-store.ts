import { Entrance } from '../state/entrance';
import { carryOut } from '@core/commands/carry-out';
import { inject, Injectable, type Provider } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Action, Command } from '@core/change/command';
import { CommandError } from '@core/change/command';
import { invert } from '@core/change/change';
import type { JournalEntry } from '@core/change/journal';
import type { Text } from '@core/model/document';
import { sequentialIds, type Id } from '@core/model/ids';
import { StudySession, type Outcome } from '../state/study-session';
import { studyFeature } from '../state/study.reducer';
import { TextCache } from '../state/text-cache';
import type { EntryPlace } from '../workers/files.worker';

/**
 * A session without a disk: commands are carried out on the study in the store as they are in the application, and
 * what was done is remembered.
 */
@Injectable()
export class SessionInStore {
  private readonly store = inject(Store);
  private readonly feature = this.store.selectSignal(studyFeature.selectStudyState);
  private readonly newId = sequentialIds(23);
  private readonly texts = inject(TextCache);
  private readonly entrance = inject(Entrance);
  private clock = 1_000_000;
  readonly done: Action[] = [];
  readonly refused: string[] = [];

  run(command: Command): Action | null {
    return this.attempt(command).done;
  }

  attempt(command: Command): Outcome {
    const { data } = this.feature();
    if (!data) return { done: null, refused: null };
    try {
      const action = carryOut(command, data, { coderId: data.study.currentCoderId, now: (this.clock += 1_000), newId: this.newId });
      if (action) this.act(action);
      return { done: action, refused: null };
    } catch (error) {
      if (!(error instanceof CommandError)) throw error;
      this.refused.push(error.message);
      return { done: null, refused: error.message };
    }
  }

  /** What asking to store again does. */
  onRetry: () => void = () => undefined;

  retry(): void {
    this.onRetry();
  }

  unsaved(): null {
    return null;
  }

  /** Takes back what was done last. */
  undo(): void {
    const last = this.done.pop();
    if (last) this.dispatch({ ...last, change: invert(last.change) });
  }

  /** Sentences of what was done, as the log would have them. */
  get sentences(): string[] {
    return this.done.map((action) => action.sentence);
  }

  /** Carries out what a worker would store. */
  async runAway(write: (place: EntryPlace) => Promise<JournalEntry>): Promise<JournalEntry | null> {
    const { data, history } = this.feature();
    const entry = await write({
      studyId: data!.study.id,
      seq: history.seq + 1,
      coderId: data!.study.currentCoderId,
      now: (this.clock += 1_000),
    });
    this.act(entry);
    return entry;
  }

  /** Texts from memory: there is no disk. */
  textsOf(documentIds: readonly Id[]): Promise<Text[]> {
    return Promise.resolve(documentIds.flatMap((id) => this.texts.peek(id) ?? []));
  }

  settled(): Promise<void> {
    return Promise.resolve();
  }

  journal(): Promise<never[]> {
    return Promise.resolve([]);
  }

  touching(): Promise<never[]> {
    return Promise.resolve([]);
  }

  private act(action: Action): void {
    this.done.push(action);
    this.dispatch(action);
  }

  private dispatch({ change, sentence }: Action): void {
    const { data, history } = this.feature();
    const entry = {
      seq: history.seq + 1,
      at: this.clock,
      coderId: data!.study.currentCoderId,
      kind: 'act' as const,
      of: null,
      sentence,
      change,
    };
    this.entrance.enter(entry, 'here');
  }
}

/** Gives components the session without a disk. */
export const sessionInStore: Provider[] = [SessionInStore, { provide: StudySession, useExisting: SessionInStore }];
