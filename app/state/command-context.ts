import type { CommandContext } from '@core/change/command';
import type { NewId } from '@core/model/ids';
import type { StudyState } from '@core/model/study-state';
import type { AnsweredHere } from './narrowing-here';

/** Who acts in the open study, and when. What live sets hold is part of it only where it was worked out from the study of now. */
export const contextOf = (data: StudyState, { of, found }: AnsweredHere, now: number, newId: NewId): CommandContext => ({
  coderId: data.study.currentCoderId,
  now,
  newId,
  ...(of === data && { answered: found }),
});
