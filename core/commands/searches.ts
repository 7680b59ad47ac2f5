import { added, removed, updated } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import type { Id } from '../model/ids';
import type { SeenAnswer } from '../model/query';
import type { WordSearch } from '../model/word-search';
import { quoted } from '../text/quoted';
import { tidyLine } from '../text/normalise';

/** Keeps a search for words under a name. What one of that name had found says nothing of another search. */
export function keepSearch(name: string, search: WordSearch, replaces = false): Command {
  return (state, context) => {
    const wanted = tidyLine(name);
    if (!wanted) throw new CommandError('A search needs a name.');
    if (!search.typed.trim()) throw new CommandError('There is nothing to look for yet. Type what to look for, and keep it then.');
    const known = Object.values(state.tables.search).find((one) => one.name === wanted);
    if (known && JSON.stringify(known.search) === JSON.stringify(search)) return null;
    if (known && !replaces)
      throw new CommandError(
        `There is a search ${quoted(short(wanted))} already, and it looks for something else. Choose another name, or replace it.`,
      );
    const kept = { id: known?.id ?? context.newId(), name: wanted, search, createdAt: known?.createdAt ?? context.now };
    return {
      change: [known ? { type: 'search', before: known, after: kept } : added('search', kept)],
      sentence: `saved the search ${short(wanted)}`,
    };
  };
}

/** Deletes a kept search. */
export function deleteSearch(searchId: Id): Command {
  return (state) => {
    const kept = found(state.tables.search[searchId], 'kept search');
    return { change: [removed('search', kept)], sentence: `deleted the search ${short(kept.name)}` };
  };
}

/** Remembers what a kept search finds, so that the next time it can say what is new. */
export function seeSearch(searchId: Id, answer: Omit<SeenAnswer, 'at'>): Command {
  return (state, context) => {
    const kept = found(state.tables.search[searchId], 'kept search');
    if (kept.seen?.signs === answer.signs) return null;
    return {
      change: [updated('search', kept, { seen: { ...answer, at: context.now } })],
      sentence: `has seen all that the search ${short(kept.name)} finds`,
    };
  };
}
