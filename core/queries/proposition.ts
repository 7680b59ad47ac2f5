import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Claim, Proposition } from '../model/proposition';
import { CaseFinder } from '../passages/case-finder';
import type { AskedStudy } from './asked-study';
import { Evaluation, type Hit } from './evaluate';
import type { Narrowing } from './narrowing';
import { chosenPart } from './open-parts';

/** What a case says of a proposition: everything asked before holds of it, and what follows too, or not; or it is not concerned. */
export type Verdict = 'for' | 'against' | 'nothing';
export const VERDICTS: readonly Verdict[] = ['for', 'against', 'nothing'];

/** A case with its passages under each claim, those of `where` first. */
export interface CaseSays {
  readonly caseId: Id;
  readonly verdict: Verdict;
  readonly hits: readonly (readonly Hit[])[];
  /** Of each claim whether it holds. */
  readonly holds: readonly boolean[];
}

/** What a proposition says otherwise than when it was last seen: cases by what they began or ceased to say. */
export interface SaysSince {
  readonly forNow: readonly Id[];
  readonly againstNow: readonly Id[];
  readonly noLongerFor: readonly Id[];
  readonly noLongerAgainst: readonly Id[];
}

/** Compares what cases say with what they said. @returns null where it never was said to be seen */
export function saysSince({ seen }: Pick<Proposition, 'seen'>, says: readonly CaseSays[]): SaysSince | null {
  if (!seen) return null;
  const now = (verdict: Verdict): Id[] => says.flatMap((one) => (one.verdict === verdict ? [one.caseId] : []));
  const without = (some: readonly Id[], others: readonly Id[]): Id[] => {
    const those = new Set(others);
    return some.filter((id) => !those.has(id));
  };
  return {
    forNow: without(now('for'), seen.speakFor),
    againstNow: without(now('against'), seen.against),
    noLongerFor: without(seen.speakFor, now('for')),
    noLongerAgainst: without(seen.against, now('against')),
  };
}

/** Claims of which something is chosen; the others are not asked. */
export const claimsAsked = (claims: readonly Claim[]): Claim[] =>
  claims.flatMap((claim) => {
    const that = chosenPart(claim.that);
    return that ? [{ ...claim, that }] : [];
  });

/**
 * Holds a proposition against the cases, one document after another. A case is looked at if anything of it is in scope: of
 * the others the material says nothing, not even that something is missing.
 */
export class PropositionTest {
  private readonly where: readonly Claim[];
  private readonly then: readonly Claim[];
  private readonly evaluations: readonly Evaluation[];
  /** By case, the passages under each claim. */
  private readonly found = new Map<Id, Hit[][]>();

  constructor(
    { where, then }: Pick<Proposition, 'where' | 'then'>,
    private readonly study: AskedStudy,
    private readonly narrowing: Narrowing,
  ) {
    this.where = claimsAsked(where);
    this.then = claimsAsked(then);
    this.evaluations = [...this.where, ...this.then].map(({ that }) => new Evaluation({ all: [that] }, study, narrowing));
  }

  /** Whether the text of a document must be known. */
  needsText(document: Document): boolean {
    return (
      CaseFinder.needsText(document) || this.narrowing.needsSpoken(document) || this.evaluations.some((one) => one.needsText(document))
    );
  }

  add(columns: PassageColumns | null, document: Document, text: Text | null): void {
    if (!this.narrowing.holds(document, text)) return;
    for (const caseId of this.narrowing.casesIn(document, text)) this.of(caseId);
    if (!columns) return;
    this.evaluations.forEach((evaluation, claim) => {
      for (const hit of evaluation.hitsIn(columns, document, text))
        for (const caseId of this.study.finder.of(document, text, hit)) this.of(caseId)[claim]!.push(hit);
    });
  }

  /** What each case says: those that speak for it, against it, and the others. */
  result(): CaseSays[] {
    const claims = [...this.where, ...this.then];
    return [...this.found]
      .map(([caseId, hits]): CaseSays => {
        const holds = claims.map((claim, at) => claim.has === hits[at]!.length > 0);
        const concerned = holds.slice(0, this.where.length).every(Boolean);
        const follows = holds.slice(this.where.length).every(Boolean);
        return { caseId, hits, holds, verdict: !concerned ? 'nothing' : follows ? 'for' : 'against' };
      })
      .sort((a, b) => VERDICTS.indexOf(a.verdict) - VERDICTS.indexOf(b.verdict));
  }

  private of(caseId: Id): Hit[][] {
    let hits = this.found.get(caseId);
    if (!hits) this.found.set(caseId, (hits = this.evaluations.map(() => [])));
    return hits;
  }
}
