import type { Document, Text } from '../model/document';
import { hasText } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns, TextColumns } from '../model/passage-columns';
import { isEverything, type Scope, type ScopePart } from '../model/scope';
import type { Stretch } from '../model/stretch';
import { casesIn } from '../passages/case-finder';
import { columnsLeft, type Looking } from '../passages/left-in';
import type { Spoken } from '../text/paragraphs';
import { answeringOf, needsText, type Answering } from './answering';
import type { AskedStudy } from './asked-study';
import { dayBegins } from './carrying';
import { bothOf, DocumentHere, type Rows } from './document-here';
import { chosenPart } from './open-parts';

/** The parts of a scope that say something; what is still to be chosen leaves nothing out. */
export const partsAsked = (scope: Scope): readonly ScopePart[] => scope.parts.filter((part) => chosenPart(part) !== null);

/** A place of a document at which its speaker, its answer or its case can be another than before: rows of columns that hold nothing. */
type Places = TextColumns;

/** What of a document is in a scope, by the places at which that can become another: ascending, without gaps. */
export interface Within {
  readonly places: Places;
  /** One flag a place. */
  readonly rows: Rows;
}

interface KeptWithin extends Within {
  readonly spoken: Spoken | null;
  /** Those that are in it, once they were asked for. */
  pieces?: readonly Stretch[];
}

/**
 * A scope made ready to be asked of one document after another. A document is in the scope if any place in it is; of its
 * passages those are left that meet every part themselves, by the same rules as a question about passages. What was
 * worked out for a document is remembered as long as it, what is said in it and its passages stay.
 */
export class Narrowing {
  readonly isEverything: boolean;
  private readonly parts: readonly ScopePart[];
  private readonly answering: readonly Answering[];
  private readonly looking: Omit<Looking, 'rows'>;
  private readonly left = new WeakMap<PassageColumns, { document: Document; spoken: Spoken | null; left: PassageColumns | null }>();
  private readonly coded = new WeakMap<PassageColumns, PassageColumns | null>();
  private readonly within = new WeakMap<Document, KeptWithin>();

  constructor(
    readonly scope: Scope,
    private readonly study: AskedStudy,
  ) {
    this.parts = partsAsked(scope);
    this.answering = this.parts.map((part) => answeringOf(part, study));
    const { coderIds, from, to } = scope.given ?? {};
    this.looking = {
      coderIds: coderIds ? new Set(coderIds) : null,
      from: from === undefined ? -Infinity : dayBegins(from, 0),
      until: to === undefined ? Infinity : dayBegins(to, 1),
    };
    this.isEverything = isEverything({ parts: [...this.parts], ...(scope.given && { given: scope.given }) });
  }

  /** Whether something is looked at by its codings: by whom or when they were given. */
  get byCodings(): boolean {
    const { coderIds, from, until } = this.looking;
    return coderIds !== null || from !== -Infinity || until !== Infinity;
  }

  /** Whether it must be known who speaks where in a document to say what is left of it. */
  needsSpoken(document: Document): boolean {
    return hasText(document) && this.parts.some((part) => needsText(part, document, this.study));
  }

  /** Whether anything of a document can be in the scope, before it is known who speaks where. */
  mayHold(document: Document): boolean {
    return this.needsSpoken(document) || this.holds(document, null);
  }

  /** Whether anything of a document is in the scope. @param spoken may be null where it was not said to be needed */
  holds(document: Document, spoken: Spoken | null): boolean {
    return this.parts.length === 0 || this.placesIn(document, spoken).rows.includes(1);
  }

  /** The passages that are left of a document; null if none is. */
  leftOf(columns: PassageColumns, document: Document, spoken: Spoken | null): PassageColumns | null {
    if (this.isEverything) return columns.starts.length > 0 ? columns : null;
    const known = this.left.get(columns);
    if (known?.document === document && known.spoken === spoken) return known.left;
    const rows = this.parts.length === 0 ? null : this.met(columns, document, spoken);
    const left = rows && !rows.includes(1) ? null : columnsLeft(columns, { ...this.looking, rows });
    this.left.set(columns, { document, spoken, left });
    return left;
  }

  /** The passages of a document whatever it is and says, by whom and when they are looked at; null if none is left. */
  codedIn(columns: PassageColumns): PassageColumns | null {
    if (!this.byCodings) return columns;
    let coded = this.coded.get(columns);
    if (coded === undefined) this.coded.set(columns, (coded = columnsLeft(columns, { ...this.looking, rows: null })));
    return coded;
  }

  /** Which of some stretches of a text are in the scope, by where they begin and what they touch, as passages would be. */
  keeps(document: Document, spoken: Spoken | null, stretches: readonly Stretch[]): (at: number) => boolean {
    if (this.parts.length === 0) return () => true;
    const rows = this.met(placesAt(document.id, stretches), document, spoken);
    return (at) => rows[at] === 1;
  }

  /** The cases of which anything is in the scope in a document. */
  casesIn(document: Document, spoken: Spoken | null): readonly Id[] {
    const { places, rows } = this.placesIn(document, spoken);
    return casesIn(this.study.finder.ofRows(document, spoken, places), rows);
  }

  /** The pieces of a document that are in the scope: within each, who speaks, whose it is and what is answered stay the same. */
  piecesIn(document: Document, spoken: Spoken | null): readonly Stretch[] {
    const here = this.placesIn(document, spoken);
    const { places, rows } = here;
    return (here.pieces ??= Array.from(rows.keys()).flatMap((row) =>
      rows[row] ? [{ start: places.starts[row]!, end: places.ends[row]! }] : [],
    ));
  }

  /** A document by the places at which what is in the scope can become another. */
  placesIn(document: Document, spoken: Spoken | null): KeptWithin {
    const known = this.within.get(document);
    if (known && known.spoken === spoken) return known;
    const places = placesAt(document.id, piecesOf(document, spoken, this.study.finder.partsIn(document.id)));
    const found: KeptWithin = { spoken, places, rows: this.met(places, document, spoken) };
    this.within.set(document, found);
    return found;
  }

  private met(columns: PassageColumns, document: Document, spoken: Spoken | null): Rows {
    const here = new DocumentHere(columns, document, null, this.study.language, spoken);
    return this.answering.reduce((rows, one) => bothOf(rows, one(here)), here.every());
  }
}

/** Stretches as rows of which something can be asked. */
const placesAt = (documentId: Id, stretches: readonly Stretch[]): Places => ({
  ground: 'text',
  documentId,
  ids: '',
  starts: Uint32Array.from(stretches, ({ start }) => start),
  ends: Uint32Array.from(stretches, ({ end }) => end),
  markedBy: new Uint16Array(stretches.length),
  markedAt: new Float64Array(stretches.length),
  comments: [],
  codingRow: new Uint32Array(),
  codingCode: new Uint32Array(),
  codingCoder: new Uint16Array(),
  codingAt: new Float64Array(),
  codes: [],
  coders: [],
});

/** A document cut wherever who speaks, whose it is, or what is answered can change. */
function piecesOf(document: Document, spoken: Spoken | null, owned: readonly Stretch[]): Stretch[] {
  const end = Math.max(1, document.characters);
  const cuts = new Set<number>([0]);
  for (const { start } of spoken?.paragraphs ?? []) cuts.add(start);
  for (const one of [...owned, ...document.answers]) cuts.add(one.start).add(one.end);
  const starts = [...cuts].filter((cut) => cut < end).sort((a, b) => a - b);
  return starts.map((start, at) => ({ start, end: starts[at + 1] ?? end }));
}

/** As much of a text as says who speaks where: the first paragraph of each turn. */
export function spokenOf({ paragraphs }: Text): Spoken {
  return { paragraphs: paragraphs.filter((one, at) => at === 0 || one.speaker !== paragraphs[at - 1]!.speaker) };
}
