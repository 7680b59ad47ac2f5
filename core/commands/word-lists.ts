import { added, removed, updated, type Change } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { WordListSchema, type WordList } from '../model/word-list';
import { quoted } from '../text/quoted';
import { tidyLine } from '../text/normalise';
import { listsRenamed } from '../words/expression';
import { askingRewritten } from './asking';

/** What a word list says. */
export type WordListFields = Pick<WordList, 'name' | 'words'>;

function tidied({ name, words }: WordListFields): WordListFields {
  const wanted = tidyLine(name);
  if (!wanted) throw new CommandError('A word list needs a name.');
  if (!WordListSchema.shape.name.safeParse(wanted).success)
    throw new CommandError('The name of a word list has no brackets: it is written between them, [like this], to look for its words.');
  const some = [...new Set(words.map(tidyLine).filter(Boolean))];
  if (some.length === 0) throw new CommandError('A word list needs a word.');
  return { name: wanted, words: some };
}

/** Lists are found by what they are called, whatever the capitals. */
const isCalled = (name: string) => (list: WordList) => list.name.toLocaleLowerCase() === name.toLocaleLowerCase();

/** Keeps words that stand for one thing under a name. */
export function addWordList(fields: WordListFields): Command {
  return (state, context) => {
    const next = tidied(fields);
    if (Object.values(state.tables.wordList).some(isCalled(next.name)))
      throw new CommandError(`There is a word list ${quoted(short(next.name))} already.`);
    return {
      change: [added('wordList', { id: context.newId(), ...next, createdAt: context.now })],
      sentence: `made the word list ${short(next.name)}`,
    };
  };
}

/** Changes a word list. Whatever asks for it by its name goes on asking for it under a new one. */
export function editWordList(wordListId: Id, fields: WordListFields): Command {
  return (state) => {
    const list = found(state.tables.wordList[wordListId], 'word list');
    const next = tidied(fields);
    if (Object.values(state.tables.wordList).some((one) => one.id !== list.id && isCalled(next.name)(one)))
      throw new CommandError(`There is a word list ${quoted(short(next.name))} already.`);
    if (next.name === list.name && next.words.join('\n') === list.words.join('\n')) return null;
    return {
      change: [updated('wordList', list, next), ...(next.name === list.name ? [] : renamed(state, list.name, next.name))],
      sentence: `changed the word list ${short(next.name)}`,
    };
  };
}

function renamed(state: StudyState, before: string, after: string): Change {
  const now = (typed: string): string => listsRenamed(typed, before, after);
  return [
    ...Object.values(state.tables.search).flatMap((kept) => {
      const typed = now(kept.search.typed);
      return typed === kept.search.typed ? [] : [updated('search', kept, { search: { ...kept.search, typed } })];
    }),
    ...askingRewritten(
      state,
      (part) => ('hasWords' in part ? { hasWords: { ...part.hasWords, typed: now(part.hasWords.typed) } } : part),
      (asked) =>
        asked.pattern === 'words' && asked.table ? { ...asked, table: { ...asked.table, typed: asked.table.typed.map(now) } } : asked,
    ),
  ];
}

/** Deletes a word list. What asks for it says that it is not there. */
export function deleteWordList(wordListId: Id): Command {
  return (state) => {
    const list = found(state.tables.wordList[wordListId], 'word list');
    return { change: [removed('wordList', list)], sentence: `deleted the word list ${short(list.name)}` };
  };
}
