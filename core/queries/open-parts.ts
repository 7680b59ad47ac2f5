import { rewritten, type PassageCondition } from '../model/passage-condition';

/** Whether a part is still to be chosen: codes that none of is named, an attribute or its value, who is meant, a query, words. */
function isOpen(part: PassageCondition): boolean {
  if ('carries' in part) return part.carries !== 'none' && !part.given && part.codes.codeIds.length + part.codes.setIds.length === 0;
  if ('attributeId' in part) return part.attributeId === '' || (part.values.length === 0 && !part.comparison.endsWith('known'));
  if ('answers' in part) return part.answers.length === 0;
  if ('ofCases' in part) return part.ofCases.length === 0;
  if ('spokenBy' in part) return part.spokenBy === 'these' && part.caseIds.length + part.names.length === 0;
  if ('queryId' in part) return part.queryId === '';
  return 'hasWords' in part && part.hasWords.typed.trim() === '';
}

/** A part without what is still to be chosen in it; null where nothing of it can be asked yet. */
export const chosenPart = (part: PassageCondition): PassageCondition | null => rewritten(part, (one) => (isOpen(one) ? null : one));
