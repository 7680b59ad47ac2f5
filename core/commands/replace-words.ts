import type { Case } from '../model/case';
import type { Document } from '../model/document';
import type { Memo } from '../model/memo';
import type { Passage } from '../model/passage';
import type { RecordType } from '../model/records';
import type { StudyState } from '../model/study-state';
import { patternOf, type Sought } from '../text/find-replace';
import { idOf, type Change, type RecordChange } from '../change/change';
import { CommandError, counted, type Command } from '../change/command';
import { correctTexts, type Correction } from './correct-text';
import { passagesOf } from './passages';

/** Other words in the place of some. */
export interface Replacement extends Sought {
  readonly by: string;
  /** Also in titles, names of speakers and cases, values, descriptions, comments and memos. */
  readonly everywhere: boolean;
}

/**
 * Replaces words in texts, as edits that were looked at one by one, and, if wanted, everywhere else in the study,
 * as one step. The sentence in the log does not name the words, since they may be what is to be hidden.
 */
export function replaceWords(corrections: readonly Correction[], replacement: Replacement): Command {
  return (state, context) => {
    const corrected = correctTexts(corrections)(state, context);
    const inTexts = corrected?.change ?? [];
    const change = replacement.everywhere ? everywhere(state, inTexts, replacement) : inTexts;
    if (change.length === 0) return null;
    const places = corrections.reduce((sum, { edits }) => sum + edits.length, 0);
    const elsewhere = change.length > inTexts.length ? ' and in names, notes and values' : '';
    return {
      ...corrected,
      change,
      sentence: `replaced words in ${counted(places, 'place')} of ${counted(corrections.length, 'document')}${elsewhere}`,
    };
  };
}

/** Adds the records outside the texts that hold the words; a record that changes already takes both changes at once. */
function everywhere(state: StudyState, inTexts: Change, replacement: Replacement): Change {
  const pattern = patternOf(replacement);
  if (!pattern) return inTexts;
  const put = (text: string): string => text.replace(pattern, () => replacement.by);
  const line = (text: string, what: string): string => {
    const next = put(text).trim();
    if (!next) throw new CommandError(`A ${what} would be left without a name.`);
    return next.slice(0, 500);
  };
  const changed = new Map(inTexts.map((one) => [`${one.type} ${idOf(one)}`, one]));
  const add = <T extends { id: string }>(type: RecordType, before: T, edit: (now: T) => T): void => {
    const key = `${type} ${before.id}`;
    const known = changed.get(key);
    const now = (known ? known.after : before) as unknown as T | null;
    if (!now) return;
    const after = edit(now);
    if (JSON.stringify(after) !== JSON.stringify(now))
      changed.set(key, { type, before: known ? known.before : before, after } as unknown as RecordChange);
  };
  const values = (record: Case | Document): Record<string, string | number | boolean> =>
    Object.fromEntries(
      Object.entries(record.values).map(([id, value]) => [
        id,
        typeof value === 'string' && state.tables.attribute[id]?.type === 'text' ? put(value) || value : value,
      ]),
    );
  for (const document of Object.values(state.tables.document)) {
    add<Document>('document', document, (now) => ({
      ...now,
      title: line(now.title, 'document'),
      description: put(now.description),
      speakers: now.speakers.map((speaker) => ({ ...speaker, name: line(speaker.name, 'speaker') })),
      source: now.source && { ...now.source, fileName: put(now.source.fileName) },
      values: values(now),
    }));
    for (const passage of passagesOf(state, document.id))
      if (passage.comment) add<Passage>('passage', passage, (now) => ({ ...now, comment: put(now.comment) }));
  }
  for (const one of Object.values(state.tables.case))
    add<Case>('case', one, (now) => ({ ...now, name: line(now.name, 'case'), description: put(now.description), values: values(now) }));
  for (const memo of Object.values(state.tables.memo))
    add<Memo>('memo', memo, (now) => ({
      ...now,
      title: line(now.title, 'memo'),
      entries: now.entries.map((entry) => ({ ...entry, text: put(entry.text) })),
    }));
  return [...changed.values()];
}
