import type { CodeCondition, CodeSet } from '../model/code-set';
import type { Id } from '../model/ids';
import { tidyLine } from '../text/normalise';
import { added, removed, updated } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';

/** Makes a set of codes, filled by hand or, with conditions, by itself. */
export function addCodeSet(rawName: string, codeIds: readonly Id[], conditions: readonly CodeCondition[] | null = null): Command {
  return (_state, context) => {
    if (conditions?.length === 0) throw new CommandError('A live set needs at least one condition.');
    const set: CodeSet = {
      id: context.newId(),
      name: nameOf(rawName),
      codeIds: conditions ? [] : [...new Set(codeIds)],
      conditions: conditions && [...conditions],
      createdAt: context.now,
    };
    return {
      change: [added('codeSet', set)],
      sentence: conditions
        ? `made the live set of codes ${short(set.name)}`
        : `made the set ${short(set.name)} of ${counted(set.codeIds.length, 'code')}`,
    };
  };
}

/** Renames a set of codes. */
export function renameCodeSet(setId: Id, rawName: string): Command {
  return (state) => {
    const set = found(state.tables.codeSet[setId], 'set');
    const name = nameOf(rawName);
    return name === set.name
      ? null
      : { change: [updated('codeSet', set, { name })], sentence: `renamed the set of codes ${short(set.name)} to ${short(name)}` };
  };
}

/** Puts codes into a set that is filled by hand, or takes them out. */
export function changeCodeSet(setId: Id, ids: readonly Id[], belong: boolean): Command {
  return (state) => {
    const set = found(state.tables.codeSet[setId], 'set');
    if (set.conditions) throw new CommandError('A live set fills itself: change its conditions.');
    const given = new Set(ids);
    const codeIds = belong ? [...new Set([...set.codeIds, ...ids])] : set.codeIds.filter((id) => !given.has(id));
    if (codeIds.length === set.codeIds.length) return null;
    return {
      change: [updated('codeSet', set, { codeIds })],
      sentence: `${belong ? 'put' : 'took'} ${counted(ids.length, 'code')} ${belong ? 'into' : 'out of'} the set ${short(set.name)}`,
    };
  };
}

/** Deletes a set of codes; the codes stay. */
export function deleteCodeSet(setId: Id): Command {
  return (state) => {
    const set = found(state.tables.codeSet[setId], 'set');
    return { change: [removed('codeSet', set)], sentence: `deleted the set of codes ${short(set.name)}` };
  };
}

function nameOf(raw: string): string {
  const name = tidyLine(raw);
  if (!name) throw new CommandError('A set needs a name.');
  return name;
}
