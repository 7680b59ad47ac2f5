import { nameOf, type Entry } from '@core/patterns/axis';
import type { GroupSize } from '@core/patterns/group-sizes';
import { counted } from '@core/text/counted';
import type { Sheet } from './take-out';

/** How much is in a group, in words: “3 documents, 2 participants, 1,204 words”. What is not known or not there is not said. */
export const sizeWords = ({ documents, cases, words }: GroupSize, caseWord: string | null): string =>
  [
    counted(documents, 'document'),
    caseWord !== null && cases > 0 ? counted(cases, caseWord) : '',
    words === null || words === 0 ? '' : counted(words, 'word'),
  ]
    .filter(Boolean)
    .join(', ');

/** The sheet that says how much is in each group. @param sizes one more than groups: of all of them @param caseWord null where cases are not said */
export const groupSheet = (groups: readonly Entry[], sizes: readonly GroupSize[], caseWord: string | null): Sheet => ({
  name: 'Groups',
  rows: [
    ['group', 'documents', ...(caseWord === null ? [] : [`${caseWord}s`]), 'words'],
    ...sizes.map(({ documents, cases, words }, at) => [
      groups[at] ? nameOf(groups[at]) : 'all',
      documents,
      ...(caseWord === null ? [] : [cases]),
      words ?? '',
    ]),
  ],
});
