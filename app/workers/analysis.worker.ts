/// <reference lib="webworker" />
import { expose } from 'comlink';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Question } from '@core/model/query';
import type { Table } from '@core/model/study-state';
import type { PassageColumns } from '@core/passages/columns';
import { evaluate, type Hit, type Scope } from '@core/queries/evaluate';
import { waysOut, type WayOut } from '@core/queries/explain';

/** What was found; for an empty answer, the steps that would bring something back. */
export interface Answer {
  readonly hits: readonly Hit[];
  readonly waysOut: readonly WayOut[];
}

const columns = new Map<Id, PassageColumns>();
let codes: Table<Code> = {};

/** Holds the passages of the open study as columns, kept in step by the interface, and answers questions. */
const analysis = {
  /** Takes the columns that are new or changed, and forgets the documents that are gone. */
  update(changed: readonly PassageColumns[], gone: readonly Id[], nextCodes: Table<Code> | null): void {
    for (const one of changed) columns.set(one.documentId, one);
    for (const id of gone) columns.delete(id);
    if (nextCodes) codes = nextCodes;
  },

  /** @param order document ids in the order of the answer */
  ask(question: Question, scope: Scope, everything: Scope, order: readonly Id[]): Answer {
    const documents = order.map((id) => columns.get(id)).filter((one) => one !== undefined);
    const hits = evaluate(question, documents, codes, scope);
    return { hits, waysOut: hits.length > 0 ? [] : waysOut(question, documents, codes, scope, everything) };
  },
};

export type AnalysisWorker = typeof analysis;
expose(analysis);
