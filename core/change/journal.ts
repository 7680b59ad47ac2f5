import { invert, type Change } from './change';
import type { History, JournalEntry } from './journal-schema';

export type { History, JournalEntry } from './journal-schema';

export const EMPTY_HISTORY: History = { seq: 0, undo: [], redo: [] };

/** Acts that can be taken back; older ones stay in the journal. */
const UNDO_DEPTH = 5_000;

/** The history after an entry. A new act ends what could be brought back. */
export function advance(history: History, entry: Pick<JournalEntry, 'seq' | 'kind' | 'of'>): History {
  if (entry.seq !== history.seq + 1) throw new RangeError(`Journal entry ${entry.seq} does not follow ${history.seq}.`);
  switch (entry.kind) {
    case 'note':
      return { ...history, seq: entry.seq };
    case 'act':
      return { seq: entry.seq, undo: [...history.undo, entry.seq].slice(-UNDO_DEPTH), redo: [] };
    case 'undo':
      return { seq: entry.seq, undo: history.undo.slice(0, -1), redo: [...history.redo, entry.of!] };
    case 'redo':
      return { seq: entry.seq, undo: [...history.undo, entry.of!], redo: history.redo.slice(0, -1) };
  }
}

/** The change that undoing or redoing an act makes. */
export function changeOf(act: JournalEntry, kind: 'undo' | 'redo'): Change {
  return kind === 'undo' ? invert(act.change) : act.change;
}
