import type { ConditionPart, MemberSet } from '../model/set';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { asksForQuery, queriesIn } from '../sets/asked-queries';
import { quoted } from '../text/quoted';
import { tidyLine } from '../text/normalise';
import { added, removed, updated } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';

/** Makes a set, filled by hand or, with a condition, by itself. */
export function addSet(
  of: MemberSet['of'],
  rawName: string,
  memberIds: readonly Id[],
  condition: readonly ConditionPart[] | null = null,
): Command {
  return (state, context) => {
    const name = tidyLine(rawName);
    if (!name) throw new CommandError('A set needs a name.');
    if (condition?.length === 0) throw new CommandError('A live set needs at least one condition.');
    const set: MemberSet = {
      id: context.newId(),
      name,
      of,
      memberIds: condition ? [] : [...new Set(memberIds)],
      condition: condition && [...condition],
    };
    mustNotAskForItself(state, set);
    return {
      change: [added('set', set)],
      sentence: `made the ${condition ? 'live set' : 'set'} ${short(name)}${condition ? '' : ` of ${counted(set.memberIds.length, of)}`}`,
    };
  };
}

/** Renames a set. */
export function renameSet(setId: Id, rawName: string): Command {
  return (state) => {
    const set = found(state.tables.set[setId], 'set');
    const name = tidyLine(rawName);
    if (!name) throw new CommandError('A set needs a name.');
    return name === set.name
      ? null
      : { change: [updated('set', set, { name })], sentence: `renamed the set ${short(set.name)} to ${short(name)}` };
  };
}

/** Puts members into a set that is filled by hand, or takes them out. */
export function changeMembers(setId: Id, ids: readonly Id[], belong: boolean): Command {
  return (state) => {
    const set = found(state.tables.set[setId], 'set');
    if (set.condition) throw new CommandError('A live set fills itself: change its condition.');
    const given = new Set(ids);
    const memberIds = belong ? [...new Set([...set.memberIds, ...ids])] : set.memberIds.filter((id) => !given.has(id));
    if (memberIds.length === set.memberIds.length) return null;
    return {
      change: [updated('set', set, { memberIds })],
      sentence: `${belong ? 'put' : 'took'} ${counted(ids.length, set.of)} ${belong ? 'into' : 'out of'} the set ${short(set.name)}`,
    };
  };
}

/** Gives a live set another condition; or none any more, and then it is filled by hand from now on. @param memberIds what is in it at present */
export function changeCondition(setId: Id, condition: readonly ConditionPart[] | null, memberIds: readonly Id[]): Command {
  return (state) => {
    const set = found(state.tables.set[setId], 'set');
    if (condition?.length === 0) throw new CommandError('A live set needs at least one condition.');
    if (!set.condition && !condition) return null;
    if (condition && JSON.stringify(condition) === JSON.stringify(set.condition)) return null;
    const after = { ...set, condition: condition && [...condition], memberIds: condition ? [] : [...new Set(memberIds)] };
    mustNotAskForItself(state, after);
    return {
      change: [updated('set', set, after)],
      sentence: condition ? `changed the condition of the set ${short(set.name)}` : `filled the set ${short(set.name)} by hand from now on`,
    };
  };
}

/** Deletes a set; its members stay. */
export function deleteSet(setId: Id): Command {
  return (state) => {
    const set = found(state.tables.set[setId], 'set');
    return { change: [removed('set', set)], sentence: `deleted the set ${short(set.name)}` };
  };
}

/** @throws CommandError where a query that a live set asks for depends, by whatever way, on what is in the set */
function mustNotAskForItself({ tables }: StudyState, set: MemberSet): void {
  const withIt = { ...tables, set: { ...tables.set, [set.id]: set } };
  for (const id of queriesIn(set.condition)) {
    const query = found(tables.query[id], 'query');
    if (asksForQuery(withIt, query.question.all, id))
      throw new CommandError(`The query ${quoted(short(query.name))} asks for sets itself, and this one would depend on its own answer.`);
  }
}
