import { newCode, type NewCode } from '../codebook/new-code';
import { proposal } from '../codebook/proposals';
import type { Id } from '../model/ids';
import type { Proposal } from '../model/proposal';
import { passageOf } from '../passages/columns';
import { tidyLine } from '../text/normalise';
import { added, removed, updated, type RecordChange } from '../change/change';
import { counted, found, short, type Command } from '../change/command';

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

/** Puts a new code forward while the codebook is frozen. A proposal of the same name takes on its passages. */
export function proposeCode(wanted: NewCode, places: Proposal['places'] = []): Command {
  return (state, context) => {
    const change = proposal(state, context, wanted, places);
    return change && { change: [change], sentence: `proposed the code ${short(tidyLine(wanted.name))}` };
  };
}

/** Takes a proposal on: the code is made, and given to the passages it was proposed for. */
export function acceptProposal(proposalId: Id): Command {
  return (state, context) => {
    const one = found(state.tables.proposal[proposalId], 'proposal');
    const parentId = one.parentId && Object.hasOwn(state.tables.code, one.parentId) ? one.parentId : null;
    const code = newCode(state, context, { name: one.name, parentId, definition: one.definition });
    const marked: RecordChange[] = one.places.flatMap(({ documentId, passageId }) => {
      const passage = passageOf(state.passages[documentId], passageId);
      const coding = { codeId: code.id, coderId: one.coderId, createdAt: context.now };
      return passage ? [updated('passage', passage, { codings: [...passage.codings, coding] })] : [];
    });
    return {
      change: [added('code', code), ...marked, removed('proposal', one)],
      sentence: `took on the proposed code ${short(code.name)}, for ${counted(marked.length, 'passage')}`,
    };
  };
}

/** Declines a proposal; its passages stay marked. */
export function declineProposal(proposalId: Id): Command {
  return (state) => {
    const one = found(state.tables.proposal[proposalId], 'proposal');
    return { change: [removed('proposal', one)], sentence: `declined the proposed code ${short(one.name)}` };
  };
}
