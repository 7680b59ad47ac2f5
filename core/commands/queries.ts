import { added, removed, updated, type RecordChange } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import type { Id } from '../model/ids';
import type { Query, Question, SeenAnswer } from '../model/query';
import { asksForQuery } from '../sets/asked-queries';
import { quoted } from '../text/quoted';
import { tidyLine } from '../text/normalise';

/** Keeps a question under a name; one with the same name is replaced. */
export function saveQuery(name: string, question: Question, replaces = false): Command {
  return (state, context) => {
    const wanted = tidyLine(name);
    if (!wanted) throw new CommandError('A query needs a name.');
    const known = Object.values(state.tables.query).find((query) => query.name === wanted);
    if (known && !replaces && JSON.stringify(known.question) !== JSON.stringify(question))
      throw new CommandError(
        `There is a query ${quoted(short(wanted))} already, and it asks something else. Choose another name, or replace it.`,
      );
    if (known && JSON.stringify(known.question) === JSON.stringify(question)) return null;
    if (known && asksForQuery(state.tables, question.all, known.id))
      throw new CommandError(`${quoted(short(wanted))} would ask for its own answer. Choose another name, or leave that part out.`);
    const query: Query = { id: context.newId(), name: wanted, question, createdAt: context.now };
    return {
      change: [known ? asking(known, question) : added('query', query)],
      sentence: `saved the query ${short(wanted)}`,
    };
  };
}

/** A kept query with another question: what the one before had found says nothing of it. */
function asking(known: Query, question: Question): RecordChange {
  const { seen: _seen, ...rest } = known;
  return { type: 'query', before: known, after: { ...rest, question } };
}

/** Deletes a saved query. */
export function deleteQuery(queryId: Id): Command {
  return (state) => {
    const query = found(state.tables.query[queryId], 'query');
    return { change: [removed('query', query)], sentence: `deleted the query ${short(query.name)}` };
  };
}

/** Remembers what a kept query finds, so that the next answer can say what is new and what is gone. */
export function seeAnswer(queryId: Id, answer: Omit<SeenAnswer, 'at'>): Command {
  return (state, context) => {
    const query = found(state.tables.query[queryId], 'query');
    if (query.seen?.signs === answer.signs) return null;
    return {
      change: [updated('query', query, { seen: { ...answer, at: context.now } })],
      sentence: `has seen all that the query ${short(query.name)} finds`,
    };
  };
}
