import { inject, Injectable, InjectionToken } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { CheckLimits, Finding } from '@core/codebook/checks';
import type { CodePage } from '@core/codebook/code-page';
import type { Gloss } from '@core/model/gloss';
import type { Id } from '@core/model/ids';
import type { Proposition } from '@core/model/proposition';
import type { Question } from '@core/model/query';
import type { TableType } from '@core/model/records';
import type { StudyState } from '@core/model/study-state';
import type { CodeUse } from '@core/passages/code-use';
import type { PassageCondition } from '@core/model/passage-condition';
import type { Scope } from '@core/model/scope';
import type { Hit } from '@core/queries/evaluate';
import type { AnswerCounts } from '@core/queries/answer-counts';
import type { CaseSays } from '@core/queries/proposition';
import type { PlacesElsewhere } from '@core/words/find-elsewhere';
import type { Spoken } from '@core/text/paragraphs';
import type { Stretch } from '@core/model/stretch';
import type { WordSearch } from '@core/model/word-search';
import type { SweptDocument } from '@core/commands/sweep';
import type { SweepContext } from '@core/words/contexts';
import type { FoundHit } from '@core/words/found-hit';
import type { Analysis } from '@core/analysis/analysis';
import type { Answer, FoundWords, GlossUse, Leaves, SetsAnswered } from '@core/analysis/messages';
import type { CellKeys, PairEvidence } from '@core/analysis/table-requests';
import type { AskedWordTable } from '@core/analysis/group-requests';
import type {
  AttributesAsked,
  FrequenciesAsked,
  GroupsAsked,
  SaturationAsked,
  SimilarityAsked,
  TakingUpAsked,
  TogetherAsked,
  WeaveAsked,
  WordsAsked,
} from '@core/model/pattern';
import type { CodePairs } from '@core/patterns/code-pairs';
import type { Entry } from '@core/patterns/axis';
import type { WordCounts } from '@core/patterns/word-counts';
import type { WordRow, WordTable } from '@core/patterns/word-table';
import type { TakingUp, TakingUpEvidence } from '@core/patterns/taking-up';
import type { AttributeCounts } from '@core/patterns/attribute-counts';
import type { Similarity } from '@core/patterns/similarity/similarity';
import type { Weave } from '@core/patterns/weave';
import type { CodesOverDocuments } from '@core/patterns/codes-over-documents';
import type { CellEvidence, CrossTable } from '@core/patterns/cross-table';
import type { CountedTable } from '@core/patterns/table-measure';
import type { Text } from '@core/model/document';
import { requested } from './requested';

/** The analysis at the other end: in a worker, or here. */
type AnalysisEnd = Remote<Analysis> | Analysis;

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
  'wordList',
] as const satisfies TableType[];

/** The analysis, and how to put an end to it, whatever it is doing. */
export interface AnalysisAtWork {
  readonly remote: AnalysisEnd;
  readonly stop: () => void;
}

/** Makes the other end when it is first needed. */
export const ANALYSIS = new InjectionToken<() => AnalysisAtWork>('ANALYSIS', {
  providedIn: 'root',
  factory: () => () => {
    const worker = new Worker(new URL('./analysis.worker', import.meta.url), { type: 'module' });
    return { remote: wrap<Analysis>(worker), stop: () => worker.terminate() };
  },
});

/** One analysis with what it was told of the study. */
class Told {
  private atWork: AnalysisAtWork | null = null;
  private told: StudyState | null = null;
  /** Texts that changed since it was last told. */
  private readonly changedTexts = new Map<Id, Text>();

  constructor(private readonly make: () => AnalysisAtWork) {}

  textChanged(text: Text): void {
    if (this.told) this.changedTexts.set(text.id, text);
  }

  forget(): void {
    this.told = null;
    this.changedTexts.clear();
  }

  /** Ends all it does, at once; the next request begins anew. */
  stop(): void {
    this.atWork?.stop();
    this.atWork = null;
    this.forget();
  }

  /** Tells what has changed. */
  async of(state: StudyState): Promise<AnalysisEnd> {
    const { remote } = (this.atWork ??= this.make());
    const before = this.told?.study.id === state.study.id ? this.told : null;
    this.told = state;
    if (before === state && this.changedTexts.size === 0) return remote;
    const texts = [...this.changedTexts.values()].filter((text) => Object.hasOwn(state.tables.document, text.id));
    this.changedTexts.clear();
    const { tables, passages } = state;
    await remote.update({
      studyId: state.study.id,
      anew: before === null,
      changed: Object.values(passages).filter((columns) => before?.passages[columns.documentId] !== columns),
      gone: Object.keys(before?.passages ?? {}).filter((id) => !Object.hasOwn(passages, id)),
      // a table that did not change is not sent
      tables: Object.fromEntries(ASKED_TABLES.flatMap((type) => (tables[type] === before?.tables[type] ? [] : [[type, tables[type]]]))),
      language: state.study.language,
      texts,
    });
    return remote;
  }
}

/** What a pattern is asked in. */
export interface AskedAt {
  readonly scope: Scope;
  /** Ids of documents, as they stand beside each other. */
  readonly order: readonly Id[];
  /** Told the share done, where it takes long. */
  readonly progress: (share: number) => void;
  /** Ends it. */
  readonly signal: AbortSignal;
}

/** Milliseconds without a sign of life after which a regular expression is held to have run away. */
const RUN_AWAY = 1_000;
const RAN_AWAY = 'This expression takes longer than anybody waits, and was ended. Say more of what stands between its repetitions.';

/** Asks the analysis worker, after telling it what has changed since it was last asked. */
@Injectable({ providedIn: 'root' })
export class AnalysisService {
  private readonly make = inject(ANALYSIS);
  private readonly usual = new Told(this.make);
  /** Where regular expressions are run: one that runs away is ended with its worker, and nothing else waits for it. */
  private readonly alone = new Told(this.make);
  private before: Promise<unknown> = Promise.resolve();

  /** A text of the open study has changed, before the disk knows. */
  textChanged(text: Text): void {
    for (const one of [this.usual, this.alone]) one.textChanged(text);
  }

  /** The study was read anew: what it was told so far may be of a past that is no more. */
  studyReadAnew(): void {
    for (const one of [this.usual, this.alone]) one.forget();
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
    return this.request(state, signal, (remote, id) => remote.ask(id, proxy(progress), question, scope, order));
  }

  /** How much an answer is; null if another was counted meanwhile. @param hits passages, by document @param signal ends it */
  answerCounts(state: StudyState, hits: ReadonlyMap<Id, ReadonlySet<Id>>, signal?: AbortSignal): Promise<AnswerCounts | null> {
    return this.request(state, signal, (remote, id) => remote.answerCounts(id, hits));
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
    if (search.match !== 'regular expression')
      return this.request(state, signal, (remote, id) =>
        remote.findWords(id, proxy(progress), proxy(show), search, scope, order, onlyUncoded),
      );
    return this.watched<FoundWords>(state, signal, { hits: 0, trouble: RAN_AWAY }, (remote, id, alive) => {
      const heard = (share: number): void => {
        alive();
        progress(share);
      };
      return remote.findWords(id, proxy(heard), proxy(show), search, scope, order, onlyUncoded);
    });
  }

  /** How much each of some scopes leaves; null if it was asked anew meanwhile. @param signal ends it */
  leaves(state: StudyState, scopes: readonly Scope[], signal?: AbortSignal): Promise<Leaves[] | null> {
    return this.request(state, signal, (remote, id) => remote.leaves(id, scopes));
  }

  /** What kept queries find that live sets ask for; null if it was asked anew meanwhile. @param known sign of the answers one has */
  setAnswers(state: StudyState, known: string): Promise<SetsAnswered | null> {
    return this.request(state, undefined, (remote, id) => remote.setAnswers(id, known));
  }

  /** Who speaks where in some documents. */
  async spoken(state: StudyState, documentIds: readonly Id[]): Promise<ReadonlyMap<Id, Spoken>> {
    return (await this.usual.of(state)).spoken(documentIds);
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

  /** Looks for words in memos, comments and what is said of codes; null if it was ended. @param signal ends it */
  findElsewhere(state: StudyState, search: WordSearch, signal?: AbortSignal): Promise<PlacesElsewhere | null> {
    if (search.match !== 'regular expression')
      return this.request(state, signal, (remote, id) =>
        remote.findElsewhere(
          id,
          proxy(() => undefined),
          search,
        ),
      );
    return this.watched<PlacesElsewhere>(state, signal, { places: [] }, (remote, id, alive) =>
      remote.findElsewhere(id, proxy(alive), search),
    );
  }

  /** Holds a proposition against the cases in scope; null if it was ended. @param signal ends it */
  proposition(
    state: StudyState,
    asked: Pick<Proposition, 'where' | 'then'>,
    scope: Scope,
    signal?: AbortSignal,
  ): Promise<CaseSays[] | null> {
    return this.request(state, signal, (remote, id) =>
      remote.proposition(
        id,
        proxy(() => undefined),
        asked,
        scope,
      ),
    );
  }

  /** A table of what is found by group; null if it was ended. @param order ids of documents, as they stand beside each other */
  crossTable(state: StudyState, asked: CountedTable, at: AskedAt): Promise<CrossTable | null> {
    return this.request(state, at.signal, (remote, id) => remote.crossTable(id, proxy(at.progress), asked, at.scope, at.order));
  }

  /** A table of one column for each measure; null if it was ended. */
  frequencies(
    state: StudyState,
    asked: Pick<FrequenciesAsked, 'rows' | 'coders'>,
    countings: readonly CountedTable['counting'][],
    at: AskedAt,
  ): Promise<CrossTable[] | null> {
    return this.request(state, at.signal, (remote, id) => remote.frequencies(id, proxy(at.progress), asked, countings, at.scope, at.order));
  }

  /** What stands behind a cell of a table; null if it was ended. */
  cell(state: StudyState, asked: CountedTable, keys: CellKeys, at: AskedAt): Promise<CellEvidence | null> {
    return this.request(state, at.signal, (remote, id) => remote.cell(id, asked, at.scope, at.order, keys));
  }

  /** How often codes are together; null if it was ended. */
  together(state: StudyState, asked: TogetherAsked, at: AskedAt): Promise<CodePairs | null> {
    return this.request(state, at.signal, (remote, id) => remote.together(id, proxy(at.progress), asked, at.scope, at.order));
  }

  /** What stands behind two codes together; null if it was ended. */
  pair(state: StudyState, asked: TogetherAsked, keys: readonly [string, string], at: AskedAt): Promise<PairEvidence | null> {
    return this.request(state, at.signal, (remote, id) => remote.pair(id, asked, at.scope, at.order, keys));
  }

  /** How often words are found; null if it was ended. */
  wordCounts(state: StudyState, asked: WordsAsked, at: AskedAt): Promise<WordCounts | null> {
    return this.request(state, at.signal, (remote, id) => remote.wordCounts(id, proxy(at.progress), asked, at.scope, at.order));
  }

  /** The groups of the material in scope; null if it was ended. */
  groups(state: StudyState, groups: GroupsAsked, at: AskedAt): Promise<readonly Entry[] | null> {
    return this.request(state, at.signal, (remote, id) => remote.groups(id, groups, at.scope, at.order));
  }

  /** Documents as threads; null if it was ended. */
  weave(state: StudyState, asked: WeaveAsked, at: AskedAt): Promise<Weave[] | null> {
    return this.request(state, at.signal, (remote, id) => remote.weave(id, proxy(at.progress), asked, at.scope));
  }

  /** How many cases or documents have which values; null if it was ended, `gone` where the attribute is. */
  attributes(state: StudyState, asked: Pick<AttributesAsked, 'of' | 'against'>, at: AskedAt): Promise<AttributeCounts | 'gone' | null> {
    return this.request(state, at.signal, (remote, id) => remote.attributes(id, proxy(at.progress), asked, at.scope, at.order));
  }

  /** How alike codes, documents or cases are; null if it was ended. */
  similarity(state: StudyState, asked: Omit<SimilarityAsked, 'pattern' | 'clusters'>, at: AskedAt): Promise<Similarity | null> {
    return this.request(state, at.signal, (remote, id) => remote.similarity(id, proxy(at.progress), asked, at.scope, at.order));
  }

  /** New codes document by document; null if it was ended. */
  codesOverDocuments(
    state: StudyState,
    asked: Pick<SaturationAsked, 'order' | 'groups'>,
    at: AskedAt,
  ): Promise<CodesOverDocuments[] | null> {
    return this.request(state, at.signal, (remote, id) => remote.codesOverDocuments(id, proxy(at.progress), asked, at.scope, at.order));
  }

  /** Who brings themes up and who takes them on; null if it was ended. */
  takingUp(state: StudyState, asked: TakingUpAsked, at: AskedAt): Promise<TakingUp | null> {
    return this.request(state, at.signal, (remote, id) => remote.takingUp(id, proxy(at.progress), asked, at.scope, at.order));
  }

  /** What stands behind a number of it; null if it was ended. */
  takingUpCell(state: StudyState, asked: TakingUpAsked, keys: CellKeys, at: AskedAt): Promise<TakingUpEvidence | null> {
    return this.request(state, at.signal, (remote, id) => remote.takingUpCell(id, asked, at.scope, at.order, keys));
  }

  /** How often words stand in each group; null if it was ended. */
  wordTable(state: StudyState, asked: AskedWordTable, at: AskedAt): Promise<WordTable | null> {
    return this.request(state, at.signal, (remote, id) => remote.wordTable(id, proxy(at.progress), asked, at.scope, at.order));
  }

  /** The places that a cell of a table of words counts; null if it was ended. */
  wordCell(state: StudyState, asked: AskedWordTable, row: WordRow, column: string | null, at: AskedAt): Promise<FoundHit[] | null> {
    return this.request(state, at.signal, (remote, id) => remote.wordCell(id, asked, at.scope, at.order, row, column));
  }

  private async request<T>(
    state: StudyState,
    signal: AbortSignal | undefined,
    ask: (remote: AnalysisEnd, id: number) => Promise<T>,
  ): Promise<T | null> {
    const remote = await this.usual.of(state);
    return signal?.aborted
      ? null
      : requested(
          signal,
          (id) => ask(remote, id),
          (id) => void remote.end(id),
        );
  }

  /**
   * A request that may run away, asked of an analysis of its own, one after the other. It is ended where nothing is heard
   * of it for {@link RUN_AWAY}, from when it first said something: then it is looking, and no longer reading.
   * @param ranAway the answer then
   */
  private async watched<T>(state: StudyState, signal: AbortSignal | undefined, ranAway: T, ask: Watched<T>): Promise<T | null> {
    // the one before was ended by whoever asks now: it answers soon, or is ended soon
    await this.before;
    if (signal?.aborted) return null;
    const answer = this.watch(state, signal, ranAway, ask);
    this.before = answer.catch(() => undefined);
    return answer;
  }

  private async watch<T>(state: StudyState, signal: AbortSignal | undefined, ranAway: T, ask: Watched<T>): Promise<T | null> {
    const remote = await this.alone.of(state);
    let timer: ReturnType<typeof setTimeout> | undefined;
    let giveUp: (answer: T) => void;
    const gaveUp = new Promise<T>((resolve) => (giveUp = resolve));
    const alive = (): void => {
      clearTimeout(timer);
      timer = setTimeout(() => {
        this.alone.stop();
        giveUp(ranAway);
      }, RUN_AWAY);
    };
    const answered = requested(
      signal,
      (id) => ask(remote, id, alive),
      (id) => void remote.end(id),
    );
    try {
      return await Promise.race([gaveUp, answered]);
    } finally {
      clearTimeout(timer);
    }
  }
}

/** Asks, and says `alive` whenever something is heard of the answer. */
type Watched<T> = (remote: AnalysisEnd, id: number, alive: () => void) => Promise<T | null>;
