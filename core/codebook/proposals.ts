import { added, updated, type RecordChange } from '../change/change';
import { CommandError, type CommandContext } from '../change/command';
import type { Proposal } from '../model/proposal';
import type { StudyState } from '../model/study-state';
import { tidyLine } from '../text/normalise';
import type { NewCode } from './new-code';

/**
 * The change that puts a code forward for passages; a proposal of the same name takes the passages on.
 * @returns null where nothing would be new
 */
export function proposal(state: StudyState, context: CommandContext, wanted: NewCode, places: Proposal['places']): RecordChange | null {
  const name = tidyLine(wanted.name);
  if (!name) throw new CommandError('A proposed code needs a name.');
  const same = Object.values(state.tables.proposal).find((one) => one.name.toLowerCase() === name.toLowerCase());
  if (same) {
    const fresh = places.filter((place) => !same.places.some((one) => one.passageId === place.passageId));
    return fresh.length > 0 ? updated('proposal', same, { places: [...same.places, ...fresh] }) : null;
  }
  return added('proposal', {
    id: context.newId(),
    name,
    definition: wanted.definition?.trim() ?? '',
    parentId: wanted.parentId ?? null,
    places: [...places],
    coderId: context.coderId,
    createdAt: context.now,
  });
}
