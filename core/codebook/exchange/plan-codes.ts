import { nearestColour } from '../../model/colour-hex';
import type { Code } from '../../model/code';
import type { Id } from '../../model/ids';
import type { Table } from '../../model/study-state';
import { lineage } from '../../passages/counting';
import type { ListedCode, ListedCodebook } from './listed-code';

/** The parts of a description a file can change. */
export const LISTED_FIELDS = ['definition', 'useWhen', 'doNotUseWhen', 'example', 'notes'] as const;
export type ListedField = (typeof LISTED_FIELDS)[number] | 'name' | 'place' | 'colour' | 'retired';

/** One field that the file has otherwise than the codebook. */
export interface FieldDifference {
  readonly field: ListedField;
  readonly before: string;
  readonly after: string;
}

/**
 * What a listed code would come to. `new`: nothing like it is there. `same`: it is there, and the file says nothing
 * else of it. `changed`: it is there, and the file says otherwise. `conflict`: a code of its name lies elsewhere, so
 * that it may or may not be the same.
 */
export interface PlannedCode {
  readonly listed: ListedCode;
  readonly status: 'new' | 'same' | 'changed' | 'conflict';
  readonly existingId: Id | null;
  readonly differences: readonly FieldDifference[];
}

/** What to do with a code: `take`: make it, or change the one that is there; `beside`: make it beside the one elsewhere; `leave`: nothing. */
export type Decision = 'take' | 'beside' | 'leave';

/** Holds a listed codebook against the one that is there. What the file leaves empty is not taken for a change. */
export function planCodes(codes: Table<Code>, listed: ListedCodebook): PlannedCode[] {
  const byPath = new Map<string, Code>();
  const byName = new Map<string, Code>();
  for (const code of Object.values(codes)) {
    byPath.set(pathKey(pathOf(codes, code.id)), code);
    byName.set(code.name.toLowerCase(), code);
  }
  return listed.codes.map((one): PlannedCode => {
    const sure = (one.guid && codes[one.guid]) || byPath.get(pathKey(one.path));
    if (sure) {
      const differences = differencesOf(codes, sure, one);
      return { listed: one, status: differences.length > 0 ? 'changed' : 'same', existingId: sure.id, differences };
    }
    const elsewhere = byName.get(one.path.at(-1)!.toLowerCase());
    return elsewhere
      ? { listed: one, status: 'conflict', existingId: elsewhere.id, differences: differencesOf(codes, elsewhere, one) }
      : { listed: one, status: 'new', existingId: null, differences: [] };
  });
}

/** Names from the top of the codebook down to a code. */
export const pathOf = (codes: Table<Code>, id: Id): string[] =>
  lineage(codes, id)
    .map((one) => codes[one]!.name)
    .reverse();

export const pathKey = (path: readonly string[]): string => path.join('\u0000').toLowerCase();

function differencesOf(codes: Table<Code>, code: Code, listed: ListedCode): FieldDifference[] {
  const differences: FieldDifference[] = [];
  const say = (field: ListedField, before: string, after: string): void => {
    if (after !== '' && after !== before) differences.push({ field, before, after });
  };
  say('name', code.name, listed.path.at(-1)!);
  const before = pathOf(codes, code.id).slice(0, -1);
  const after = listed.path.slice(0, -1);
  if (pathKey(before) !== pathKey(after)) differences.push({ field: 'place', before: before.join(' / '), after: after.join(' / ') });
  for (const field of LISTED_FIELDS) say(field, code[field] ?? '', listed[field].trim());
  const colour = listed.colour === null ? null : nearestColour(listed.colour);
  if (colour !== null && colour !== code.colour) differences.push({ field: 'colour', before: String(code.colour), after: String(colour) });
  if (listed.retired !== null && listed.retired !== (code.retired ?? false))
    differences.push({ field: 'retired', before: code.retired ? 'retired' : 'in use', after: listed.retired ? 'retired' : 'in use' });
  return differences;
}
