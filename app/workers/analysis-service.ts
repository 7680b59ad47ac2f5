import { Injectable } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { Id } from '@core/model/ids';
import type { Code } from '@core/model/code';
import type { Question } from '@core/model/query';
import type { StudyState, Table } from '@core/model/study-state';
import type { PassageColumns } from '@core/passages/columns';
import type { Scope } from '@core/queries/evaluate';
import type { AnalysisWorker, Answer } from './analysis.worker';

/** Asks the analysis worker, after telling it what has changed since it was last asked. */
@Injectable({ providedIn: 'root' })
export class AnalysisService {
  private remote: Remote<AnalysisWorker> | null = null;
  private told: Readonly<Record<Id, PassageColumns>> = {};
  private toldCodes: Table<Code> | null = null;

  async ask(state: StudyState, question: Question, scope: Scope, order: readonly Id[]): Promise<Answer> {
    this.remote ??= wrap<AnalysisWorker>(new Worker(new URL('./analysis.worker', import.meta.url), { type: 'module' }));
    const { passages, tables } = state;
    const changed = Object.values(passages).filter((columns) => this.told[columns.documentId] !== columns);
    const gone = Object.keys(this.told).filter((id) => !Object.hasOwn(passages, id));
    const codes = tables.code === this.toldCodes ? null : tables.code;
    this.told = passages;
    this.toldCodes = tables.code;
    if (changed.length > 0 || gone.length > 0 || codes) await this.remote.update(changed, gone, codes);
    const everything: Scope = { documentIds: new Set(order), coderId: null };
    return this.remote.ask(question, scope, everything, order);
  }
}
