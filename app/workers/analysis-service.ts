import { inject, Injectable, InjectionToken } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { CheckLimits, Finding } from '@core/codebook/checks';
import type { CodePage } from '@core/codebook/code-page';
import type { Gloss } from '@core/model/gloss';
import type { Id } from '@core/model/ids';
import type { Question } from '@core/model/query';
import type { TableType } from '@core/model/records';
import type { StudyState } from '@core/model/study-state';
import type { CodeUse } from '@core/passages/code-use';
import type { PassageCondition } from '@core/model/passage-condition';
import type { Hit, Scope } from '@core/queries/evaluate';
import type { Stretch } from '@core/model/stretch';
import type { WordSearch } from '@core/model/word-search';
import type { SweptDocument } from '@core/commands/sweep';
import type { SweepContext } from '@core/words/contexts';
import type { FoundHit } from '@core/words/found-hit';
import type { Analysis } from '@core/analysis/analysis';
import type { Answer, FoundWords, GlossUse } from '@core/analysis/messages';
import type { Text } from '@core/model/document';
import { requested } from './requested';

/** The analysis at the other end: in a worker, or here. */
type AnalysisEnd =
  | Pick<
      Remote<Analysis>,
      'update' | 'end' | 'ask' | 'sideBySide' | 'findWords' | 'contexts' | 'codeUse' | 'codePage' | 'glossUse' | 'checks'
    >
  | Analysis;

/** Tables that something is asked of. */
const ASKED_TABLES = [
  'attribute',
  'case',
  'code',
  'codeSet',
  'coder',
  'document',
  'folder',
  'memo',
  'query',
  'question',
  'set',
] as const satisfies TableType[];

/** Makes the other end when it is first needed. */
export const ANALYSIS = new InjectionToken<() => AnalysisEnd>('ANALYSIS', {
  providedIn: 'root',
  factory: () => () => wrap<Analysis>(new Worker(new URL('./analysis.worker', import.meta.url), { type: 'module' })),
});

/** Asks the analysis worker, after telling it what has changed since it was last asked. */
@Injectable({ providedIn: 'root' })
export class AnalysisService {
  private readonly make = inject(ANALYSIS);
  private remote: AnalysisEnd | null = null;
  /** Texts that changed since it was last told. */
  private readonly changedTexts = new Map<Id, Text>();
  private told: StudyState | null = null;

  /** A text of the open study has changed, before the disk knows. */
  textChanged(text: Text): void {
    this.changedTexts.set(text.id, text);
  }

  /** The study was read anew: what it was told so far may be of a past that is no more. */
  studyReadAnew(): void {
    this.told = null;
    this.changedTexts.clear();
  }

  /** The answer to a question; null if it was ended. @param signal ends it @param progress told the share done, where it takes long */
  ask(
    state: StudyState,
    question: Question,
    scope: Scope,
    order: readonly Id[],
    signal?: AbortSignal,
    progress: (share: number) => void = () => undefined,
  ): Promise<Answer | null> {
    const everything = { documentIds: new Set(order), coderId: null };
    return this.request(state, signal, (remote, id) => remote.ask(id, proxy(progress), question, scope, everything, order));
  }

  /** The same question for several groups, hits by group; null if it was ended. @param signal ends it */
  sideBySide(
    state: StudyState,
    question: Question,
    groups: readonly PassageCondition[],
    scope: Scope,
    order: readonly Id[],
    signal?: AbortSignal,
  ): Promise<Hit[][] | null> {
    return this.request(state, signal, (remote, id) => remote.sideBySide(id, question, groups, scope, order));
  }

  /** Looks for words in scope, and gives what is found as it comes; null if it was ended. @param signal ends it */
  findWords(
    state: StudyState,
    search: WordSearch,
    scope: Scope,
    order: readonly Id[],
    onlyUncoded: boolean,
    show: (hits: readonly FoundHit[]) => void,
    progress: (share: number) => void,
    signal?: AbortSignal,
  ): Promise<FoundWords | null> {
    return this.request(state, signal, (remote, id) =>
      remote.findWords(id, proxy(progress), proxy(show), search, scope, order, onlyUncoded),
    );
  }

  /** What is to be coded around hits, by document. @param hits ascending by start */
  contexts(state: StudyState, hits: ReadonlyMap<Id, readonly Stretch[]>, context: SweepContext): Promise<SweptDocument[] | null> {
    return this.request(state, undefined, (remote, id) => remote.contexts(id, hits, context));
  }

  /** The use of every code in scope; null if it was asked anew meanwhile. */
  codeUse(
    state: StudyState,
    scope: Scope,
    withWords: boolean,
    progress: (share: number) => void,
  ): Promise<ReadonlyMap<Id, CodeUse> | null> {
    return this.request(state, undefined, (remote, id) => remote.codeUse(id, proxy(progress), scope, withWords));
  }

  /** What the page of a code shows; null if another was asked for meanwhile. @param signal ends it */
  codePage(state: StudyState, codeId: Id, withUnder: boolean, scope: Scope, signal?: AbortSignal): Promise<CodePage | null> {
    return this.request(state, signal, (remote, id) => remote.codePage(id, codeId, withUnder, scope));
  }

  /** Documents in which a word of the glossary stands, those with the most first; null if it was ended. @param signal ends it */
  glossUse(state: StudyState, gloss: Gloss, signal?: AbortSignal): Promise<readonly GlossUse[] | null> {
    return this.request(state, signal, (remote, id) => remote.glossUse(id, gloss, Object.keys(state.tables.document)));
  }

  /** What may be wrong with the codebook; null if it was ended. @param signal ends it */
  checks(state: StudyState, limits: CheckLimits, signal?: AbortSignal): Promise<Finding[] | null> {
    return this.request(state, signal, (remote, id) => remote.checks(id, limits));
  }

  private async request<T>(
    state: StudyState,
    signal: AbortSignal | undefined,
    ask: (remote: AnalysisEnd, id: number) => Promise<T>,
  ): Promise<T | null> {
    const remote = await this.tell(state);
    return signal?.aborted
      ? null
      : requested(
          signal,
          (id) => ask(remote, id),
          (id) => void remote.end(id),
        );
  }

  private async tell(state: StudyState): Promise<AnalysisEnd> {
    this.remote ??= this.make();
    const before = this.told?.study.id === state.study.id ? this.told : null;
    this.told = state;
    if (before === state && this.changedTexts.size === 0) return this.remote;
    const texts = [...this.changedTexts.values()].filter((text) => Object.hasOwn(state.tables.document, text.id));
    this.changedTexts.clear();
    const { tables, passages } = state;
    await this.remote.update({
      studyId: state.study.id,
      anew: before === null,
      changed: Object.values(passages).filter((columns) => before?.passages[columns.documentId] !== columns),
      gone: Object.keys(before?.passages ?? {}).filter((id) => !Object.hasOwn(passages, id)),
      // a table that did not change is not sent
      tables: Object.fromEntries(ASKED_TABLES.flatMap((type) => (tables[type] === before?.tables[type] ? [] : [[type, tables[type]]]))),
      language: state.study.language,
      texts,
    });
    return this.remote;
  }
}
