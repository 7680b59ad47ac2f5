import { newCode } from '../../codebook/new-code';
import type { Id } from '../../model/ids';
import type { Proposal } from '../../model/proposal';
import type { StudyState } from '../../model/study-state';
import { tidyLine } from '../../text/normalise';
import { added, removed, updated, type RecordChange } from '../change';
import { CommandError, counted, found, short, type Command } from '../command';
import { passagesOf } from './passages';

/** @throws CommandError while the codebook is frozen */
export function mayChangeCodebook(state: StudyState): void {
  if (state.study.frozen)
    throw new CommandError('The codebook is frozen. Propose a new code instead, or unfreeze the codebook first, under Codebook.');
}

/** Locks the codebook: codes can be given and taken, but not made, changed, moved or deleted. */
export function freezeCodebook(freeze: boolean): Command {
  return (state, context) => {
    if (Boolean(state.study.frozen) === freeze) return null;
    const { frozen: _, ...open } = state.study;
    const after = freeze ? { ...open, frozen: { at: context.now, coderId: context.coderId } } : open;
    return {
      change: [{ type: 'study', before: state.study, after }],
      sentence: freeze ? `froze the codebook with ${counted(Object.keys(state.tables.code).length, 'code')}` : 'unfroze the codebook',
    };
  };
}

/** A code that is wished for, and the passage that would carry it, where there is one. */
export type Proposed = Pick<Proposal, 'name' | 'definition' | 'parentId' | 'places'>;

/** Puts a new code forward while the codebook is frozen. A proposal of the same name takes on its passages. */
export function proposeCode(wanted: Proposed): Command {
  return (state, context) => {
    const name = tidyLine(wanted.name);
    if (!name) throw new CommandError('A proposed code needs a name.');
    const same = Object.values(state.tables.proposal).find((one) => one.name.toLowerCase() === name.toLowerCase());
    if (same) {
      const places = [...same.places, ...wanted.places.filter((place) => !same.places.some((one) => one.passageId === place.passageId))];
      if (places.length === same.places.length) return null;
      return { change: [updated('proposal', same, { places })], sentence: `named one more passage for the proposed code ${short(name)}` };
    }
    const proposal: Proposal = {
      id: context.newId(),
      name,
      definition: wanted.definition.trim(),
      parentId: wanted.parentId,
      places: [...wanted.places],
      coderId: context.coderId,
      createdAt: context.now,
    };
    return { change: [added('proposal', proposal)], sentence: `proposed the code ${short(name)}` };
  };
}

/** Takes a proposal on: the code is made, and given to the passages it was proposed for. */
export function acceptProposal(proposalId: Id): Command {
  return (state, context) => {
    const proposal = found(state.tables.proposal[proposalId], 'proposal');
    const parentId = proposal.parentId && Object.hasOwn(state.tables.code, proposal.parentId) ? proposal.parentId : null;
    const code = newCode(state, context, { name: proposal.name, parentId, definition: proposal.definition });
    const marked: RecordChange[] = proposal.places.flatMap(({ documentId, passageId }) => {
      const passage = passagesOf(state, documentId).find((one) => one.id === passageId);
      const coding = { codeId: code.id, coderId: proposal.coderId, createdAt: context.now };
      return passage ? [updated('passage', passage, { codings: [...passage.codings, coding] })] : [];
    });
    return {
      change: [added('code', code), ...marked, removed('proposal', proposal)],
      sentence: `took on the proposed code ${short(code.name)}, for ${counted(marked.length, 'passage')}`,
    };
  };
}

/** Declines a proposal; its passages stay marked. */
export function declineProposal(proposalId: Id): Command {
  return (state) => {
    const proposal = found(state.tables.proposal[proposalId], 'proposal');
    return { change: [removed('proposal', proposal)], sentence: `declined the proposed code ${short(proposal.name)}` };
  };
}
