import { quoted } from '../text/quoted';
import type { Id } from '../model/ids';
import { heldIn, kindsHeldBy, mapped, type Moves, type Pointed } from '../model/references';
import { entryOf, nameOfRecord, TABLE_TYPES, type TableType } from '../model/records';
import type { StudyState } from '../model/study-state';
import { counted } from '../text/counted';

/** What becomes of a record when something it points at goes. */
type Outcome = 'goes' | 'settled' | 'placeholder' | 'emptied';

/** How many records are named before they are counted. */
const NAMED = 3;

/** Records whose own dialogs say what they lose: values, folders and speakers are many, and stay what they are. */
const SAID_ELSEWHERE: ReadonlySet<TableType> = new Set(['document', 'case', 'folder']);

/**
 * What stands on records that are to go, to be named before they do: a sentence for each kind of thing that points at
 * them and what becomes of it. Read from what record types say they hold.
 * @returns sentences, none where nothing stands on them
 */
export function standingOn(state: StudyState, type: TableType, ids: readonly Id[]): string[] {
  const gone = new Set(ids);
  const moves: Moves = { records: { [type]: new Map(ids.map((id) => [id, null])) } };
  const groups = new Map<string, { readonly type: TableType; readonly outcome: Outcome; readonly names: string[] }>();
  for (const holder of TABLE_TYPES) {
    if (SAID_ELSEWHERE.has(holder) || !(kindsHeldBy(holder).has(type) || (type === 'document' && kindsHeldBy(holder).has('passage'))))
      continue;
    for (const record of Object.values(state.tables[holder])) {
      // what goes itself stands on nothing
      if (holder === type && gone.has(record.id)) continue;
      const points = heldIn(holder, record as never).points.filter((point) => pointsAt(point, type, gone));
      if (points.length === 0) continue;
      const outcome = outcomeOf(points, mapped(holder, record as never, moves) === null);
      const key = `${holder} ${outcome}`;
      const group = groups.get(key) ?? { type: holder, outcome, names: [] };
      group.names.push(nameOfRecord(record));
      groups.set(key, group);
    }
  }
  const them = ids.length === 1 ? 'it' : 'them';
  return [...groups.values()].map((group) => sentenceOf(group, them));
}

const pointsAt = (point: Pointed, type: TableType, gone: ReadonlySet<Id>): boolean =>
  'documentId' in point ? type === 'document' && gone.has(point.documentId) : point.of === type && gone.has(point.id);

function outcomeOf(points: readonly Pointed[], goes: boolean): Outcome {
  if (points.some((point) => point.whenGone === 'settled')) return 'settled';
  if (goes) return 'goes';
  return points.every((point) => point.whenGone === 'placeholder') ? 'placeholder' : 'emptied';
}

function sentenceOf({ type, outcome, names }: { type: TableType; outcome: Outcome; names: readonly string[] }, them: string): string {
  const { called } = entryOf(type);
  const one = names.length === 1;
  const named = names.length <= NAMED && names.every(Boolean);
  const many = called === 'query' ? 'queries' : called === 'set of codes' ? 'sets of codes' : `${called}s`;
  const who = named
    ? `The ${one ? called : many} ${names.map((name) => quoted(name)).join(', ')}`
    : counted(names.length, called, many).replace(/^1 /, 'One ');
  switch (outcome) {
    case 'goes':
      return `${who} ${one ? 'goes' : 'go'} with ${them}.`;
    case 'settled':
      return `${who} ${one ? 'asks' : 'ask'} for ${them}: filled by hand from then on, with what is in ${one ? 'it' : 'them'} now.`;
    case 'placeholder':
      return `${who} ${one ? 'speaks' : 'speak'} of ${them}, and will say by name that ${them === 'it' ? 'it is' : 'they are'} gone.`;
    case 'emptied':
      return type === 'memo'
        ? `${who} ${one ? 'is' : 'are'} linked to ${them}, and ${one ? 'stays' : 'stay'}.`
        : `${who} ${one ? 'loses' : 'lose'} ${them}.`;
  }
}
