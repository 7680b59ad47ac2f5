import { CommandError } from '../change/command';
import type { StudyState } from '../model/study-state';

/** @throws CommandError while the codebook is frozen: codes can be given and taken then, but not made or changed */
export function mayChangeCodebook(state: StudyState): void {
  if (state.study.frozen)
    throw new CommandError('The codebook is frozen. Propose a new code instead, or unfreeze the codebook first, under Codebook.');
}
