import type { Id } from '../model/ids';
import type { LogEntry } from '../model/log-entry';
import { tidyWords } from '../text/normalise';
import { added, removed, updated } from '../change/change';
import { CommandError, found, type Command } from '../change/command';

/** Writes something into the log: a decision, a meeting. @param day `YYYY-MM-DD` */
export function addLogEntry(day: string, rawText: string, tags: readonly string[]): Command {
  return (_state, context) => {
    const entry: LogEntry = { id: context.newId(), day, ...contentOf(rawText, tags), coderId: context.coderId, createdAt: context.now };
    return { change: [added('logEntry', entry)], sentence: 'wrote an entry into the log' };
  };
}

/** Changes an entry of the researcher's own. */
export function editLogEntry(id: Id, day: string, rawText: string, tags: readonly string[]): Command {
  return (state) => ({
    change: [updated('logEntry', found(state.tables.logEntry[id], 'entry'), { day, ...contentOf(rawText, tags) })],
    sentence: 'changed an entry of the log',
  });
}

/** Takes an entry of the researcher's own away. */
export function deleteLogEntry(id: Id): Command {
  return (state) => ({
    change: [removed('logEntry', found(state.tables.logEntry[id], 'entry'))],
    sentence: 'took an entry out of the log',
  });
}

function contentOf(rawText: string, tags: readonly string[]): Pick<LogEntry, 'text' | 'tags'> {
  const text = rawText.trim();
  if (!text) throw new CommandError('There is nothing written yet.');
  return { text, tags: tidyWords(tags) };
}
