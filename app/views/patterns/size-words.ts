import type { GroupSize } from '@core/patterns/group-sizes';
import { counted } from '@core/text/counted';

/** How much is in a group, in words: “3 documents, 2 participants, 1,204 words”. What is not known or not there is not said. */
export const sizeWords = ({ documents, cases, words }: GroupSize, caseWord: string | null): string =>
  [
    counted(documents, 'document'),
    caseWord !== null && cases > 0 ? counted(cases, caseWord) : '',
    words === null || words === 0 ? '' : counted(words, 'word'),
  ]
    .filter(Boolean)
    .join(', ');
