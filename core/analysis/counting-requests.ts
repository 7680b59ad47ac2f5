import { checkCodebook, type CheckLimits, type Finding } from '../codebook/checks';
import { CodePageBuilder, type CodePage } from '../codebook/code-page';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { Scope } from '../model/scope';
import { caseFinderOf, CaseFinder } from '../passages/case-finder';
import { CodeUseCounter, type CodeUse } from '../passages/code-use';
import { countCodes } from '../passages/counting';
import { Narrowing, spokenOf } from '../queries/narrowing';
import type { Requests, Tell } from '../requests/requests';
import type { Spoken } from '../text/paragraphs';
import { BATCH, type HeldStudy } from './held-study';
import type { Leaves } from './messages';

/** What is counted over the study: what scopes leave, the use of codes, a code's page, checks of the codebook. */
export class CountingRequests {
  constructor(
    private readonly held: HeldStudy,
    private readonly requests: Requests,
  ) {}

  /** How much each of some scopes leaves of the study. @returns null if it was ended */
  leaves(id: number, scopes: readonly Scope[]): Promise<Leaves[] | null> {
    return this.requests.run('leaves', id, async (running) => {
      const study = this.held.asked();
      const narrowings = scopes.map((scope) => new Narrowing(scope, study));
      const left = scopes.map(() => ({ documents: 0, cases: new Set<Id>(), passages: 0 }));
      // whose a passage is depends on who speaks
      const needsText = (document: Document): boolean =>
        CaseFinder.needsText(document) || narrowings.some((one) => one.needsSpoken(document));
      await this.held.eachDocument(running, Object.keys(this.held.tables.document), needsText, (columns, document, text) => {
        narrowings.forEach((narrowing, at) => {
          if (!narrowing.holds(document, text)) return;
          const found = left[at]!;
          found.documents++;
          for (const caseId of narrowing.casesIn(document, text)) found.cases.add(caseId);
          found.passages += (columns && narrowing.leftOf(columns, document, text))?.starts.length ?? 0;
        });
      });
      return left.map(({ documents, cases, passages }) => ({ documents, cases: cases.size, passages }));
    });
  }

  /** Who speaks where in some documents, as they are in the study this was told of. */
  async spoken(documentIds: readonly Id[]): Promise<Map<Id, Spoken>> {
    const spoken = new Map<Id, Spoken>();
    for (let at = 0; at < documentIds.length; at += BATCH)
      for (const [id, text] of await this.held.textsOf(documentIds.slice(at, at + BATCH))) spoken.set(id, spokenOf(text));
    return spoken;
  }

  /** The use of every code in scope. @returns null if it was ended */
  codeUse(id: number, tell: Tell, scope: Scope, withWords: boolean): Promise<ReadonlyMap<Id, CodeUse> | null> {
    return this.requests.run(
      'code use',
      id,
      async (running) => {
        const counter = new CodeUseCounter(this.held.tables.code, caseFinderOf(this.held.tables.case), withWords);
        const narrowing = this.held.narrowingTo(scope);
        await this.held.eachDocument(
          running,
          this.held.mayHold(narrowing),
          (document) => withWords || CaseFinder.needsText(document) || narrowing.needsSpoken(document),
          (some, document, text) => {
            const left = some && narrowing.leftOf(some, document, text);
            if (left) counter.add(left, document, text);
          },
        );
        return counter.result();
      },
      tell,
    );
  }

  /** What the page of a code shows. @returns null if it was ended */
  codePage(id: number, codeId: Id, withUnder: boolean, scope: Scope): Promise<CodePage | null> {
    return this.requests.run('code page', id, async (running) => {
      const builder = new CodePageBuilder(this.held.tables.code, codeId, withUnder, caseFinderOf(this.held.tables.case));
      const narrowing = this.held.narrowingTo(scope);
      const concerned = this.held
        .mayHold(narrowing)
        .filter((one) => this.held.columns.has(one) && builder.concerns(this.held.columns.get(one)!));
      await this.held.eachDocument(
        running,
        concerned,
        (document) => document.speakers.length > 0 || narrowing.needsSpoken(document),
        (some, document, text) => {
          const left = some && narrowing.leftOf(some, document, text);
          if (left) builder.add(left, document, text);
        },
      );
      return builder.result();
    });
  }

  /** Looks through the whole codebook. @returns null if it was ended */
  checks(id: number, limits: CheckLimits): Promise<Finding[] | null> {
    return this.requests.run('checks', id, () => {
      const all = [...this.held.columns.values()];
      return checkCodebook(this.held.tables.code, all, countCodes(all, this.held.tables.code), limits);
    });
  }
}
