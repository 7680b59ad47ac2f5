import { NOTHING_ANSWERED, type FoundBy } from '../model/answered';
import { randomId, type Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { StudyState } from '../model/study-state';
import { foundBy, FoundIn } from '../queries/found-by';
import { Running } from '../requests/requests';
import { queriesOfSets, setsAskQueries } from '../sets/asked-queries';
import type { HeldStudy } from './held-study';
import type { SetsAnswered } from './messages';

/** What a document holds of an answer: the cases of which something is found, null where nothing is. */
interface InDocument {
  readonly columns: PassageColumns;
  readonly cases: readonly Id[] | null;
}

/**
 * What the kept queries find that live sets ask for. It is worked out before anything is answered that may depend on
 * such a set; after a change of codings only the documents that changed are asked again.
 */
export class SetAnswers {
  private tables: StudyState['tables'] | null = null;
  private readonly known = new Map<Id, Map<Id, InDocument>>();
  /** Version of the held study that all is known of. */
  private through = 0;
  /** Tells what is known here from what another analysis knows. */
  private readonly name = randomId();
  private working: Promise<void> | null = null;

  constructor(private readonly held: HeldStudy) {}

  /** What is known. @param known sign of the answers that whoever asks has */
  answers(known: string): SetsAnswered {
    const sign = `${this.name} ${this.held.answersGiven}`;
    return { sign, found: sign === known ? null : this.held.answered };
  }

  /** Done when all is known; null where it is, or where no set asks for a query. */
  ready(): Promise<void> | null {
    if (this.through === this.held.version) return null;
    if (!setsAskQueries(this.held.tables)) {
      this.known.clear();
      this.held.answersAre(NOTHING_ANSWERED);
      this.through = this.held.version;
      return null;
    }
    return this.upToDate();
  }

  private async upToDate(): Promise<void> {
    while (this.through !== this.held.version) await (this.working ??= this.work().finally(() => (this.working = null)));
  }

  private async work(): Promise<void> {
    const { version, tables } = this.held;
    // what a live set of codes holds can change with any coding
    const byAllPassages = Object.values(tables.codeSet).some((set) => set.conditions !== null);
    if (tables !== this.tables || byAllPassages) this.known.clear();
    this.tables = tables;
    const ids = queriesOfSets(tables);
    const answers: Record<Id, FoundBy> = {};
    for (const id of ids) {
      const before = this.held.answered[id];
      const found = await this.answerOf(id);
      if (this.held.version !== version) return;
      answers[id] = before && sameFound(before, found) ? before : found;
      if (answers[id] === before) continue;
      // what depends on this answer is asked anew, in all documents
      for (const later of ids.slice(ids.indexOf(id) + 1)) this.known.delete(later);
      this.held.answersAre({ ...this.held.answered, [id]: answers[id]! });
    }
    if (Object.keys(this.held.answered).length !== ids.length) this.held.answersAre(answers);
    this.through = version;
  }

  /** Asks the documents that changed since they were asked. */
  private async answerOf(queryId: Id): Promise<FoundBy> {
    const { columns, tables, version } = this.held;
    const asked = new FoundIn(tables.query[queryId]!.question, this.held.asked());
    const before = this.known.get(queryId);
    const now = new Map<Id, InDocument>();
    for (const [id, one] of before ?? []) if (columns.get(id) === one.columns) now.set(id, one);
    const changed = [...columns.keys()].filter((id) => !now.has(id) && tables.document[id]);
    await this.held.eachDocument(
      new Running(() => undefined),
      changed,
      (document) => asked.needsText(document),
      (some, document, text) => {
        if (some) now.set(document.id, { columns: some, cases: asked.casesIn(some, document, text) });
      },
    );
    if (this.held.version === version) this.known.set(queryId, now);
    return foundBy(Array.from(now, ([id, { cases }]) => [id, cases] as const));
  }
}

const sameFound = (a: FoundBy, b: FoundBy): boolean => sameIds(a.documentIds, b.documentIds) && sameIds(a.caseIds, b.caseIds);

function sameIds(a: readonly Id[], b: readonly Id[]): boolean {
  if (a.length !== b.length) return false;
  const known = new Set(a);
  return b.every((id) => known.has(id));
}
