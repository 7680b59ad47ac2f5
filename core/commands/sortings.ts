import { quoted } from '../text/quoted';
import { newCode } from '../codebook/new-code';
import type { Id } from '../model/ids';
import type { Code } from '../model/code';
import type { Sorting, SortingGroup, SortingSlip } from '../model/sorting';
import { lineage } from '../passages/counting';
import { tidyLine } from '../text/normalise';
import { added, removed, updated, type RecordChange } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { mayChangeCodebook } from '../codebook/frozen';

/** Lays out a table to sort codes on. */
export function addSorting(rawName: string, codeIds: readonly Id[]): Command {
  return (state, context) => {
    const name = tidyLine(rawName);
    if (!name) throw new CommandError('A sorting table needs a name.');
    if (codeIds.length === 0) throw new CommandError('There are no codes to sort.');
    const sorting: Sorting = {
      id: context.newId(),
      name,
      codeIds: [...new Set(codeIds)].filter((id) => Object.hasOwn(state.tables.code, id)),
      groups: [],
      slips: [],
      createdAt: context.now,
    };
    return {
      change: [added('sorting', sorting)],
      sentence: `laid out ${counted(sorting.codeIds.length, 'code')} on the sorting table ${short(name)}`,
    };
  };
}

/** Where slips are laid: in a group, freely at a place, or (null) back among those not placed. */
export type Laid = { readonly groupId: Id } | { readonly x: number; readonly y: number } | null;

/** Lays slips down. Several laid freely at once are laid below each other. */
export function layCodes(sortingId: Id, codeIds: readonly Id[], where: Laid): Command {
  return (state) => {
    const sorting = found(state.tables.sorting[sortingId], 'sorting table');
    const chosen = new Set(codeIds);
    const rest = sorting.slips.filter((slip) => !chosen.has(slip.codeId));
    const group = where && 'groupId' in where ? groupOf(sorting, where.groupId) : null;
    const slipAt = (codeId: Id, at: number): SortingSlip[] => {
      if (!where) return [];
      return 'groupId' in where ? [{ codeId, ...where, x: 0, y: 0 }] : [{ codeId, groupId: null, x: where.x, y: where.y + at * 30 }];
    };
    const what = codeIds.length === 1 ? `the code ${short(state.tables.code[codeIds[0]!]?.name ?? '')}` : counted(codeIds.length, 'code');
    const how = group ? `put ${what} into the group ${short(group.name)}` : where ? `laid ${what} down` : `took ${what} off`;
    return {
      change: [updated('sorting', sorting, { slips: [...rest, ...codeIds.flatMap(slipAt)] })],
      sentence: `${how} on the sorting table ${short(sorting.name)}`,
    };
  };
}

/** Makes a named group on a sorting table, with codes in it. */
export function addGroup(sortingId: Id, rawName: string, at: { x: number; y: number }, codeIds: readonly Id[] = []): Command {
  return (state, context) => {
    const sorting = found(state.tables.sorting[sortingId], 'sorting table');
    const name = groupName(sorting, rawName, null);
    const group = { id: context.newId(), name, x: at.x, y: at.y };
    const rest = sorting.slips.filter((slip) => !codeIds.includes(slip.codeId));
    const slips = [...rest, ...codeIds.map((codeId) => ({ codeId, groupId: group.id, x: 0, y: 0 }))];
    return {
      change: [updated('sorting', sorting, { groups: [...sorting.groups, group], slips })],
      sentence: `made the group ${short(name)} on the sorting table ${short(sorting.name)}`,
    };
  };
}

/** Renames or moves a group. */
export function editGroup(sortingId: Id, groupId: Id, fields: { name?: string; x?: number; y?: number }): Command {
  return (state) => {
    const sorting = found(state.tables.sorting[sortingId], 'sorting table');
    const group = groupOf(sorting, groupId);
    const next = { ...group, ...fields, name: fields.name === undefined ? group.name : groupName(sorting, fields.name, groupId) };
    if (next.name === group.name && next.x === group.x && next.y === group.y) return null;
    return {
      change: [updated('sorting', sorting, { groups: sorting.groups.map((one) => (one === group ? next : one)) })],
      sentence:
        next.name === group.name ? `moved the group ${short(group.name)}` : `renamed the group ${short(group.name)} to ${short(next.name)}`,
    };
  };
}

/** Moves groups and free slips to new places, as one step. @param places by id of the group or of the slip's code */
export function arrangeTable(sortingId: Id, places: ReadonlyMap<Id, { readonly x: number; readonly y: number }>): Command {
  return (state) => {
    const sorting = found(state.tables.sorting[sortingId], 'sorting table');
    const groups = sorting.groups.map((group) => ({ ...group, ...places.get(group.id) }));
    const slips = sorting.slips.map((slip) => ({ ...slip, ...places.get(slip.codeId) }));
    return { change: [updated('sorting', sorting, { groups, slips })], sentence: `tidied the sorting table ${short(sorting.name)}` };
  };
}

/** Dissolves a group: its slips are not placed any more. */
export function removeGroup(sortingId: Id, groupId: Id): Command {
  return (state) => {
    const sorting = found(state.tables.sorting[sortingId], 'sorting table');
    const group = groupOf(sorting, groupId);
    return {
      change: [
        updated('sorting', sorting, {
          groups: sorting.groups.filter((one) => one !== group),
          slips: sorting.slips.filter((slip) => slip.groupId !== groupId),
        }),
      ],
      sentence: `dissolved the group ${short(group.name)} on the sorting table ${short(sorting.name)}`,
    };
  };
}

/** Clears a sorting table away; the codes stay as they are. */
export function deleteSorting(sortingId: Id): Command {
  return (state) => {
    const sorting = found(state.tables.sorting[sortingId], 'sorting table');
    return { change: [removed('sorting', sorting)], sentence: `cleared away the sorting table ${short(sorting.name)}` };
  };
}

/**
 * Makes categories of the groups: each becomes a code at the top of the codebook (or the one that is there with its
 * name), and the codes in it move under it. A code whose own category is in the same group comes with that one.
 */
export function groupsToCategories(sortingId: Id): Command {
  return (state, context) => {
    mayChangeCodebook(state);
    const sorting = found(state.tables.sorting[sortingId], 'sorting table');
    const codes = state.tables.code;
    const made: Code[] = [];
    const moves: RecordChange[] = [];
    for (const group of sorting.groups) {
      const inside = sorting.slips
        .filter((slip) => slip.groupId === group.id && Object.hasOwn(codes, slip.codeId))
        .map((slip) => slip.codeId);
      if (inside.length === 0) continue;
      const there = Object.values(codes).find((code) => code.parentId === null && code.name.toLowerCase() === group.name.toLowerCase());
      const category = there ?? newCode(state, context, { name: group.name }, made);
      if (!there) made.push(category);
      const names = new Set(Object.values(codes).flatMap((code) => (code.parentId === category.id ? [code.name.toLowerCase()] : [])));
      inside.forEach((id, at) => {
        const code = codes[id]!;
        if (id === category.id || code.parentId === category.id) return;
        if (
          lineage(codes, id)
            .slice(1)
            .some((above) => inside.includes(above))
        )
          return;
        if (there && lineage(codes, there.id).includes(id))
          throw new CommandError(`${code.name} cannot go under ${there.name}, which lies under it.`);
        if (names.has(code.name.toLowerCase()))
          throw new CommandError(`${quoted(group.name)} would hold two codes named ${quoted(code.name)}. Rename one, or join them.`);
        names.add(code.name.toLowerCase());
        moves.push(updated('code', code, { parentId: category.id, order: at + 1 }));
      });
    }
    if (made.length === 0 && moves.length === 0) return null;
    const after = { ...codes, ...Object.fromEntries(moves.map((move) => [move.after!.id, move.after as Code])) };
    for (const { after: code } of moves)
      if (code && lineage(after, code.id).some((id) => after[id]!.parentId === code.id))
        throw new CommandError(`${(code as Code).name} would come to lie under itself: two groups have each other’s name in them.`);
    return {
      change: [...made.map((code) => added('code', code)), ...moves],
      sentence: `made categories of the groups on the sorting table ${short(sorting.name)}: ${counted(moves.length, 'code')} moved`,
    };
  };
}

/** @throws CommandError if it is gone */
function groupOf(sorting: Sorting, groupId: Id): SortingGroup {
  return found(
    sorting.groups.find((one) => one.id === groupId),
    'group',
  );
}

function groupName(sorting: Sorting, raw: string, exceptId: Id | null): string {
  const name = tidyLine(raw);
  if (!name) throw new CommandError('A group needs a name.');
  if (sorting.groups.some((group) => group.id !== exceptId && group.name.toLowerCase() === name.toLowerCase()))
    throw new CommandError(`There is already a group ${quoted(name)} on this table.`);
  return name;
}
