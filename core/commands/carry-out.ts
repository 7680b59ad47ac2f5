import { heldIn, isThere } from '../model/references';
import { entryOf, RECORDS, type RecordType } from '../model/records';
import type { StudyState } from '../model/study-state';
import { applyChange } from '../change/apply';
import type { Change } from '../change/change';
import { CommandError, type Action, type Command, type CommandContext } from '../change/command';
import { relinked } from '../change/relink';
import { setsSettled } from './settle';

/**
 * Works out a command in a state: what it changes itself, and what everything that points at what it moves or takes
 * away becomes. The one way from a command to what is applied.
 * @throws CommandError also where it would point at something that is not there: it may have gone while somebody chose
 */
export function carryOut(command: Command, state: StudyState, context: CommandContext): Action | null {
  const action = command(state, context);
  if (!action) return null;
  const { heirs, ...rest } = action;
  const change = relinked(state, action.change, heirs ?? {}, (before, moves) => setsSettled(before, moves, context.now, context.answered));
  mustHold(applyChange(state, change), change);
  return { ...rest, change };
}

/** @throws CommandError where a changed record points at something that is not there and did not before */
function mustHold(after: StudyState, change: Change): void {
  for (const one of change) {
    if (!one.after || (RECORDS[one.type].kept !== 'row' && one.type !== 'study')) continue;
    for (const point of heldIn(one.type, one.after as never).points) {
      if (point.whenGone === 'placeholder' || isThere(after, point)) continue;
      const before = one.before ? heldIn(one.type, one.before as never).points : [];
      if (!before.some((known) => known.of === point.of && known.id === point.id))
        throw new CommandError(`The ${entryOf(point.of as RecordType).called} is no longer there. Nothing was changed.`);
    }
  }
}
