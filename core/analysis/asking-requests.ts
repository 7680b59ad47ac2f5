import type { Text } from '../model/document';
import { hasText } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageCondition } from '../model/passage-condition';
import type { Proposition } from '../model/proposition';
import type { Question } from '../model/query';
import type { Scope } from '../model/scope';
import { caseFinderOf } from '../passages/case-finder';
import { AnswerCounter, type AnswerCounts } from '../queries/answer-counts';
import { Evaluation, type Hit } from '../queries/evaluate';
import { waysOut } from '../queries/explain';
import { PropositionTest, type CaseSays } from '../queries/proposition';
import type { Requests, Running, Tell } from '../requests/requests';
import { BATCH, type HeldStudy } from './held-study';
import type { Answer } from './messages';

/** Documents that are asked between two breaths. */
const ASKED_AT_ONCE = 200;

const NO_TEXTS: ReadonlyMap<Id, Text> = new Map();

/** What is asked about passages: questions, for one answer or for several groups, and propositions. */
export class AskingRequests {
  constructor(
    private readonly held: HeldStudy,
    private readonly requests: Requests,
  ) {}

  /** Answers a question. @param order document ids in the order of the answer @returns null if it was ended */
  ask(id: number, tell: Tell, question: Question, scope: Scope, order: readonly Id[]): Promise<Answer | null> {
    return this.requests.run(
      'ask',
      id,
      async (running) => {
        const study = this.held.asked();
        const evaluation = new Evaluation(question, study, this.held.narrowingTo(scope));
        const hits = await this.hitsOf(running, evaluation, order);
        const count = async (changed: Question, within: Scope): Promise<number> => {
          const tried = new Evaluation(changed, study, this.held.narrowingTo(within));
          await this.evaluate(running, tried, order);
          return tried.found;
        };
        const ways = hits.length > 0 ? [] : await waysOut(question, count, scope);
        return { hits, parts: evaluation.parts(), of: evaluation.passages, waysOut: ways };
      },
      tell,
    );
  }

  /** How much an answer is. @param hits passages, by document @returns null if it was ended */
  answerCounts(id: number, hits: ReadonlyMap<Id, ReadonlySet<Id>>): Promise<AnswerCounts | null> {
    const counter = new AnswerCounter(caseFinderOf(this.held.tables.case));
    return this.requests.run('answer counts', id, async (running) => {
      await this.held.eachDocument(running, [...hits.keys()], hasText, (columns, document, text) => {
        if (columns) counter.add(columns, document, text, hits.get(document.id)!);
      });
      return counter.result();
    });
  }

  /** Answers the same question for several groups. @param groups a further part for each @returns hits by group; null if it was ended */
  sideBySide(
    id: number,
    question: Question,
    groups: readonly PassageCondition[],
    scope: Scope,
    order: readonly Id[],
  ): Promise<Hit[][] | null> {
    return this.requests.run('side by side', id, async (running) => {
      const [study, narrowing] = [this.held.asked(), this.held.narrowingTo(scope)];
      const answers: Hit[][] = [];
      for (const group of groups) {
        answers.push(await this.hitsOf(running, new Evaluation({ ...question, all: [...question.all, group] }, study, narrowing), order));
      }
      return answers;
    });
  }

  /** Holds a proposition against the cases in scope. @returns null if it was ended */
  proposition(id: number, tell: Tell, asked: Pick<Proposition, 'where' | 'then'>, scope: Scope): Promise<CaseSays[] | null> {
    return this.requests.run(
      'proposition',
      id,
      async (running) => {
        const narrowing = this.held.narrowingTo(scope);
        const test = new PropositionTest(asked, this.held.asked(), narrowing);
        await this.held.eachDocument(
          running,
          this.held.mayHold(narrowing),
          (document) => test.needsText(document),
          (columns, document, text) => test.add(columns, document, text),
        );
        return test.result();
      },
      tell,
    );
  }

  private async hitsOf(running: Running, evaluation: Evaluation, order: readonly Id[]): Promise<Hit[]> {
    const hits: Hit[] = [];
    await this.evaluate(running, evaluation, order, (found) => {
      for (const hit of found) hits.push(hit);
    });
    return hits;
  }

  /** Goes through the documents a question concerns, with texts where it needs them. @throws RequestEndedError */
  private async evaluate(
    running: Running,
    evaluation: Evaluation,
    order: readonly Id[],
    visit: (hits: readonly Hit[]) => void = () => undefined,
  ): Promise<void> {
    const ids = order.filter(
      (id) => this.held.columns.has(id) && this.held.tables.document[id] && evaluation.mayConcern(this.held.tables.document[id]),
    );
    let at = 0;
    while (at < ids.length) {
      const some: Id[] = [];
      const reading: Id[] = [];
      while (at < ids.length && some.length < ASKED_AT_ONCE && reading.length < BATCH) {
        const id = ids[at++]!;
        some.push(id);
        if (evaluation.needsText(this.held.tables.document[id]!)) reading.push(id);
      }
      const texts = reading.length > 0 ? await this.held.textsOf(reading) : NO_TEXTS;
      running.check();
      for (const id of some) {
        const [columns, document] = [this.held.columns.get(id), this.held.tables.document[id]];
        // it may have gone while texts were read
        if (columns && document) visit(evaluation.hitsIn(columns, document, texts.get(id) ?? null));
      }
      if (reading.length > 0) await running.tell(at / ids.length);
      else await running.breathe();
    }
  }
}
