import type { Id } from './ids';

/** In which documents, and of which cases, a kept query finds something in the whole study. */
export interface FoundBy {
  readonly documentIds: readonly Id[];
  readonly caseIds: readonly Id[];
}

/**
 * What is known of the kept queries that live sets ask for, by query. It is worked out from all passages and, for some,
 * from texts, so it stands beside the study and is not found out where a set is read. A query that is not in it is not
 * known yet.
 */
export type Answered = Readonly<Record<Id, FoundBy>>;

export const NOTHING_ANSWERED: Answered = {};
