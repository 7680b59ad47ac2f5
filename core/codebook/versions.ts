import { quoted } from '../text/quoted';
import type { JournalEntry } from '../change/journal-schema';
import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';

/**
 * The codebook as it was before some entries were made.
 * @param now the codebook after them
 * @param entries the newest first, without a gap among those that changed codes
 */
export function codebookBefore(now: Table<Code>, entries: readonly JournalEntry[]): Table<Code> {
  const codes: Record<Id, Code> = { ...now };
  for (const entry of entries)
    for (const change of entry.change) {
      if (change.type !== 'code') continue;
      if (change.before) codes[change.before.id] = change.before;
      else delete codes[change.after!.id];
    }
  return codes;
}

/** One code that is otherwise in one codebook than in another. */
export interface CodeDifference {
  readonly kind: 'added' | 'removed' | 'renamed' | 'moved' | 'redefined' | 'retired' | 'in use again';
  readonly before: Code | null;
  readonly after: Code | null;
}

/** What became of a codebook: a code that was both renamed and moved is told twice. In the order of names. */
export function compareCodebooks(before: Table<Code>, after: Table<Code>): CodeDifference[] {
  const differences: CodeDifference[] = [];
  for (const id of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const [was, is] = [before[id] ?? null, after[id] ?? null];
    const say = (kind: CodeDifference['kind']): unknown => differences.push({ kind, before: was, after: is });
    if (!was) say('added');
    else if (!is) say('removed');
    else {
      if (was.name !== is.name) say('renamed');
      if (was.parentId !== is.parentId) say('moved');
      if (DESCRIPTION.some((key) => was[key] !== is[key])) say('redefined');
      if (Boolean(was.retired) !== Boolean(is.retired)) say(is.retired ? 'retired' : 'in use again');
    }
  }
  const name = (one: CodeDifference): string => (one.after ?? one.before)!.name;
  return differences.sort((a, b) => name(a).localeCompare(name(b)));
}

const DESCRIPTION = ['definition', 'useWhen', 'doNotUseWhen', 'example'] as const;

/** One thing that happened to a code. */
export interface CodeEvent {
  readonly seq: number;
  readonly at: number;
  readonly coderId: Id;
  /** "renamed from Longing", "moved under Feelings". */
  readonly words: string;
  /** The definition from then on, where it changed. */
  readonly definition?: string;
  /** The passage it was made from. */
  readonly passage?: { readonly documentId: Id; readonly passageId: Id };
}

/**
 * How a code came about, the oldest first.
 * @param entries journal entries that changed the code's record, in any order
 * @param nameOf the name of a code that is or was there
 */
export function historyOf(codeId: Id, entries: readonly JournalEntry[], nameOf: (id: Id) => string): CodeEvent[] {
  return [...entries].sort((a, b) => a.seq - b.seq).flatMap((entry) => eventOf(codeId, entry, nameOf) ?? []);
}

function eventOf(codeId: Id, entry: JournalEntry, nameOf: (id: Id) => string): CodeEvent | null {
  const change = entry.change.find((one) => one.type === 'code' && (one.after ?? one.before)!.id === codeId);
  if (change?.type !== 'code') return null;
  const { before, after } = change;
  const base = { seq: entry.seq, at: entry.at, coderId: entry.coderId };
  const turn = entry.kind === 'undo' ? ' (taken back)' : entry.kind === 'redo' ? ' (done again)' : '';
  if (!before) {
    const passage = entry.change.find((one) => one.type === 'passage' && one.after?.codings.some((coding) => coding.codeId === codeId));
    const from =
      passage?.type === 'passage' && passage.after ? { documentId: passage.after.documentId, passageId: passage.after.id } : undefined;
    const under = after!.parentId ? ` under ${nameOf(after!.parentId)}` : '';
    const words =
      entry.kind === 'undo' ? `brought back${under}` : `made as ${quoted(after!.name)}${under}${from ? ', from a passage' : ''}`;
    return { ...base, words: words + turn, ...(from && { passage: from }), ...(after!.definition && { definition: after!.definition }) };
  }
  if (!after) return { ...base, words: `${entry.kind === 'undo' ? 'its making was taken back' : 'deleted, or joined into another'}` };
  const parts: string[] = [];
  const came = (after.joined ?? []).filter((name) => !before.joined?.includes(name));
  if (came.length > 0) parts.push(`${came.join(', ')} joined into it`);
  if (before.name !== after.name) parts.push(`renamed from ${quoted(before.name)} to ${quoted(after.name)}`);
  if (before.parentId !== after.parentId) parts.push(after.parentId ? `moved under ${nameOf(after.parentId)}` : 'moved to the top');
  if (before.definition !== after.definition) parts.push(after.definition ? 'defined anew' : 'its definition was taken away');
  if ((['useWhen', 'doNotUseWhen', 'example'] as const).some((key) => before[key] !== after[key])) parts.push('its use described');
  if (Boolean(before.retired) !== Boolean(after.retired)) parts.push(after.retired ? 'retired' : 'taken into use again');
  if (before.mark !== after.mark || before.colour !== after.colour) parts.push('another mark or colour');
  if (parts.length === 0) return null;
  return { ...base, words: parts.join('; ') + turn, ...(before.definition !== after.definition && { definition: after.definition }) };
}
