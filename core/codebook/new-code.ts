import { quoted } from '../text/quoted';
import { CommandError, type CommandContext } from '../change/command';
import { FAMILY_SIZE, PALETTE_SIZE, type Code } from '../model/code';
import type { Id } from '../model/ids';
import { markFor } from '../model/mark';
import type { StudyState, Table } from '../model/study-state';
import { tidyLine } from '../text/normalise';
import { childrenOf } from './tree';

/** What is known of a code that is to be made. Colour and mark follow from the codebook where not given. */
export interface NewCode {
  readonly name: string;
  readonly parentId?: Id | null;
  readonly definition?: string;
}

/**
 * Makes the record of a new code, at the end of its category.
 * @param alsoNew codes that are being made in the same action
 * @throws CommandError for an empty name or one that its category already has
 */
export function newCode(state: StudyState, context: CommandContext, wanted: NewCode, alsoNew: readonly Code[] = []): Code {
  const name = tidyLine(wanted.name);
  const parentId = wanted.parentId ?? null;
  const all = { ...state.tables.code, ...Object.fromEntries(alsoNew.map((code) => [code.id, code])) };
  checkName(all, name, parentId, null);
  const siblings = childrenOf(all, parentId);
  const mark = markFor(name, new Set(Object.values(all).map((code) => code.mark)));
  const order = (siblings.at(-1)?.order ?? 0) + 1;
  const code = bareCode(context, { name, mark, colour: colourFor(all, parentId), parentId, order });
  return { ...code, definition: wanted.definition?.trim() ?? '' };
}

/** The record of a code of which nothing is said yet. */
export const bareCode = (
  { newId, now, coderId }: CommandContext,
  known: Pick<Code, 'name' | 'mark' | 'colour' | 'parentId' | 'order'>,
): Code => ({ id: newId(), ...known, definition: '', useWhen: '', doNotUseWhen: '', example: '', createdAt: now, coderId });

/** @throws CommandError for an empty name, or one that a sibling has already, whatever its case */
export function checkName(codes: Table<Code>, name: string, parentId: Id | null, exceptId: Id | null): void {
  if (!name) throw new CommandError('A code needs a name.');
  const same = Object.values(codes).find(
    (code) =>
      code.id !== exceptId && code.parentId === parentId && code.name.localeCompare(name, undefined, { sensitivity: 'accent' }) === 0,
  );
  if (same)
    throw new CommandError(
      `There is already a code ${quoted(same.name)} ${parentId ? `under ${codes[parentId]?.name ?? 'this category'}` : 'at the top of the codebook'}.`,
    );
}

/** A colour near its category's family; at the top, the family least in use. */
function colourFor(codes: Table<Code>, parentId: Id | null): number {
  const used = Object.values(codes);
  const family = parentId
    ? Math.floor((codes[parentId]?.colour ?? 0) / FAMILY_SIZE)
    : leastUsed(
        used.filter((code) => code.parentId === null).map((code) => Math.floor(code.colour / FAMILY_SIZE)),
        PALETTE_SIZE / FAMILY_SIZE,
      );
  const member = leastUsed(
    used.filter((code) => Math.floor(code.colour / FAMILY_SIZE) === family).map((code) => code.colour % FAMILY_SIZE),
    FAMILY_SIZE,
  );
  return family * FAMILY_SIZE + member;
}

function leastUsed(used: readonly number[], size: number): number {
  const counts = new Array<number>(size).fill(0);
  for (const one of used) counts[one]!++;
  return counts.indexOf(Math.min(...counts));
}
