import { advance, type History, type JournalEntry } from '../change/journal';
import { applyChange } from '../change/apply';
import type { Change } from '../change/change';
import { CommandError, counted } from '../change/command';
import { relinked } from '../change/relink';
import { setsSettled } from '../commands/settle';
import type { Id } from '../model/ids';
import type { HeldPassage } from '../model/holding';
import type { RecordType } from '../model/records';
import type { StudyState } from '../model/study-state';
import { danglingIn, isPart } from './check-study';

/** A study that was mended, with the entry that says so in its log. */
export interface Mended {
  readonly state: StudyState;
  readonly entry: JournalEntry;
  readonly history: History;
}

/**
 * Takes off what records point at and that is not there: versions of Filum before data version 6 left such links
 * behind. It is an entry of the log like any other, so that it can be seen what was taken off, and when.
 * @param now milliseconds since 1970
 * @returns null where nothing dangles, or where what does cannot be taken off
 */
export function danglingMended(state: StudyState, history: History, now: number): Mended | null {
  const dangling = danglingIn(state);
  if (dangling.length === 0) return null;
  const records: Partial<Record<RecordType, Map<Id, null>>> = {};
  const passages = new Map<Id, HeldPassage | null>();
  for (const { point } of dangling) {
    if (!('id' in point)) continue;
    if (point.of === 'passage') passages.set(point.id, null);
    else (records[point.of as RecordType] ??= new Map<Id, null>()).set(point.id, null);
  }
  let change: Change;
  try {
    change = relinked(
      state,
      [],
      {
        records,
        passages,
        stretch: (one) => (isPart(state, one) ? [one] : []),
      },
      (before, moves) => setsSettled(before, moves, now),
    );
  } catch (error) {
    if (error instanceof CommandError) return null;
    throw error;
  }
  const entry: JournalEntry = {
    seq: history.seq + 1,
    at: now,
    coderId: state.study.currentCoderId,
    kind: 'note',
    of: null,
    sentence: `found ${counted(dangling.length, 'link')} to what an earlier version had lost, and took ${dangling.length === 1 ? 'it' : 'them'} off`,
    change,
  };
  return { state: applyChange(state, change), entry, history: advance(history, entry) };
}
