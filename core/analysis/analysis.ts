import { Requests } from '../requests/requests';
import { AskingRequests } from './asking-requests';
import { CountedPatterns } from './counted-patterns';
import { CountingRequests } from './counting-requests';
import { GroupRequests } from './group-requests';
import { HeldStudy } from './held-study';
import type { ReadTexts, Told } from './messages';
import { PatternRequests } from './pattern-requests';
import { SetAnswers } from './set-answers';
import { TableRequests } from './table-requests';
import { WordRequests } from './word-requests';

/** Everything that can be asked of the open study as a whole; see {@link analysisOf}. */
export type Analysis = ReturnType<typeof analysisOf>;

/**
 * Holds the passages of the open study as columns, kept in step by whoever asks, and answers questions about them. A
 * newer question of a kind ends the older, and each can be ended by its number. It knows no worker: it is run in one, and
 * tested as it is.
 */
export function analysisOf(read: ReadTexts) {
  const held = new HeldStudy(read);
  const sets = new SetAnswers(held);
  const requests: Requests = new Requests(() => sets.ready());
  const asking = new AskingRequests(held, requests);
  const words = new WordRequests(held, requests);
  const counting = new CountingRequests(held, requests);
  const counted = new CountedPatterns(held);
  const tables = new TableRequests(held, requests, counted);
  const patterns = new PatternRequests(held, requests, counted);
  const groups = new GroupRequests(held, requests, counted);
  return {
    /** Takes what is new or changed, and forgets the documents that are gone. */
    update: (told: Told): void => held.update(told),
    /** Ends a request, if it is still at work. */
    end: (id: number): void => requests.end(id),
    ask: asking.ask.bind(asking),
    answerCounts: asking.answerCounts.bind(asking),
    sideBySide: asking.sideBySide.bind(asking),
    proposition: asking.proposition.bind(asking),
    findWords: words.findWords.bind(words),
    findElsewhere: words.findElsewhere.bind(words),
    glossUse: words.glossUse.bind(words),
    contexts: words.contexts.bind(words),
    leaves: counting.leaves.bind(counting),
    setAnswers: (id: number, known: string) => requests.run('set answers', id, () => sets.answers(known)),
    spoken: counting.spoken.bind(counting),
    codeUse: counting.codeUse.bind(counting),
    codePage: counting.codePage.bind(counting),
    checks: counting.checks.bind(counting),
    crossTable: tables.crossTable.bind(tables),
    frequencies: tables.frequencies.bind(tables),
    cell: tables.cell.bind(tables),
    together: tables.together.bind(tables),
    pair: tables.pair.bind(tables),
    weave: patterns.weave.bind(patterns),
    wordCounts: patterns.wordCounts.bind(patterns),
    groups: patterns.groups.bind(patterns),
    attributes: patterns.attributes.bind(patterns),
    similarity: patterns.similarity.bind(patterns),
    takingUp: groups.takingUp.bind(groups),
    takingUpCell: groups.takingUpCell.bind(groups),
    wordTable: groups.wordTable.bind(groups),
    wordCell: groups.wordCell.bind(groups),
    codesOverDocuments: patterns.codesOverDocuments.bind(patterns),
  };
}
