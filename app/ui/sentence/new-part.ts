import type { PassageCondition } from '@core/model/passage-condition';

const NO_CODES = { codeIds: [], setIds: [], withUnder: false };

/** A part that carries codes, none of them named yet. */
export const NEW_CARRIES: PassageCondition = { carries: 'any', codes: NO_CODES, reach: 'passage' };

/** What can be added to a question: how it is called where it is chosen, and how it begins. */
export interface NewPart {
  readonly name: string;
  readonly part: PassageCondition;
  /** Offered only where the study has any. */
  readonly needs?: 'attribute of case' | 'attribute of document' | 'case' | 'question' | 'query' | 'speaker' | 'media' | 'date';
}

const within = { count: 1, unit: 'paragraph' } as const;

/** What a question about passages can ask. */
export const NEW_PARTS: readonly NewPart[] = [
  { name: 'carry codes', part: NEW_CARRIES },
  { name: 'overlap, lie near or beside others', part: { standing: 'near', to: NEW_CARRIES, within } },
  { name: 'are spoken by', part: { spokenBy: 'others', caseIds: [], names: [] }, needs: 'speaker' },
  { name: 'are of some cases', part: { ofCases: [] }, needs: 'case' },
  { name: 'are of a case with an attribute', part: { attributeId: '', comparison: 'is known', values: [] }, needs: 'attribute of case' },
  {
    name: 'lie in a document with an attribute',
    part: { attributeId: '', comparison: 'is known', values: [] },
    needs: 'attribute of document',
  },
  { name: 'lie in documents, folders or sets', part: { liesIn: { documentIds: [], folderIds: [], setIds: [] } } },
  { name: 'lie in a kind of document', part: { kinds: [] } },
  { name: 'lie in documents of some days', part: { dated: {} }, needs: 'date' },
  { name: 'are in or of anything: a folder, a set, a case, an answer, a speaker', part: { placed: 'of a case' } },
  { name: 'answer a question', part: { answers: [] }, needs: 'question' },
  {
    name: 'hold words',
    part: { hasWords: { typed: '', match: 'whole words', capitals: false, accents: false, unit: 'words' } },
  },
  { name: 'have a comment', part: { comment: 'some', words: '' } },
  { name: 'have a memo', part: { memo: true } },
  { name: 'answer a kept query', part: { queryId: '' }, needs: 'query' },
  { name: 'are words, spans or areas', part: { grounds: [] }, needs: 'media' },
  { name: 'either: one of several things', part: { any: [NEW_CARRIES] } },
  { name: 'not: none of several things', part: { none: [NEW_CARRIES] } },
];

/** What a scope can ask: of a place, not of what a passage there carries. */
export const SCOPE_PARTS: readonly NewPart[] = NEW_PARTS.filter(({ part }) =>
  ['kinds', 'liesIn', 'attributeId', 'ofCases', 'spokenBy', 'answers', 'dated', 'placed'].some((field) => field in part),
);
