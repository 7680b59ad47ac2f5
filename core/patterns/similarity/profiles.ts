import { hasText, type Document, type Text } from '../../model/document';
import type { Id } from '../../model/ids';
import type { PassageColumns } from '../../model/passage-columns';
import type { SimilarityAsked } from '../../model/pattern';
import { CaseFinder } from '../../passages/case-finder';
import type { AskedStudy } from '../../queries/asked-study';
import type { Narrowing } from '../../queries/narrowing';
import { entryFor, type Entry } from '../axis';
import { foundAxisOf, type FoundAxis, type LookedAt } from '../found-axis';
import { codedBySeveral } from '../joined';
import { occurrencesOf } from '../occurrences';
import { countEntries } from '../count-entries';
import { Scratch } from '../scratch';
import { profileOf, turned, type Profile } from './profile';

/** What each of some things has, and how often. */
export interface Profiles {
  readonly things: readonly Entry[];
  readonly rows: readonly Profile[];
}

/** How often each code was found in the units of one document. */
type Part = ReadonlyMap<string, Profile>;

/**
 * Says where codes occur (in documents, cases or paragraphs), or which codes documents or cases have: the same counts,
 * read from either side. What counts as one is said by how coders count (`joinedByCoders`). A passage is in every
 * paragraph it has a place in; in recordings and pictures there are none.
 */
export class ProfileCounter {
  private readonly found: FoundAxis;
  private readonly units: 'documents' | 'cases' | 'paragraphs';
  private readonly scratch: Scratch;
  private readonly parts = new WeakMap<PassageColumns, { readonly document: Document; readonly part: Part }>();

  constructor(
    private readonly asked: Pick<SimilarityAsked, 'compared' | 'rows' | 'occurring' | 'coders'>,
    private readonly study: AskedStudy,
    private readonly narrowing: Narrowing,
  ) {
    this.found = foundAxisOf(asked.rows, study);
    this.scratch = new Scratch(this.found.entries.length);
    this.units = asked.compared === 'codes' ? asked.occurring : asked.compared;
  }

  needsText(document: Document): boolean {
    return (
      hasText(document) &&
      (this.units === 'paragraphs' ||
        (this.units === 'cases' && CaseFinder.needsText(document)) ||
        this.found.needsText(document) ||
        this.narrowing.needsSpoken(document))
    );
  }

  /** Whether nothing has changed in a document since it was counted. */
  knows(columns: PassageColumns | null, document: Document): boolean {
    return columns === null || this.parts.get(columns)?.document === document;
  }

  add(columns: PassageColumns | null, document: Document, text: Text | null): void {
    if (columns && !this.knows(columns, document)) this.parts.set(columns, { document, part: this.partOf(columns, document, text) });
  }

  /** The profiles over some documents that were counted; what has nothing is not among them. */
  result(documents: Iterable<PassageColumns>): Profiles {
    const units = new Map<string, Profile[]>();
    for (const columns of documents)
      for (const [unit, entries] of this.parts.get(columns)?.part ?? []) {
        const some = units.get(unit);
        if (some) some.push(entries);
        else units.set(unit, [entries]);
      }
    const profiles = [...units.values()].map(joinedProfile);
    return this.asked.compared === 'codes' ? this.ofCodes(profiles) : this.ofUnits([...units.keys()], profiles);
  }

  private ofCodes(units: readonly Profile[]): Profiles {
    const rows = turned(units, this.found.entries.length);
    const some = [...rows.keys()].filter((at) => rows[at]!.features.length > 0);
    return { things: some.map((at) => this.found.entries[at]!), rows: some.map((at) => rows[at]!) };
  }

  private ofUnits(ids: readonly Id[], profiles: readonly Profile[]): Profiles {
    const { document: documents, case: cases } = this.study.tables;
    const named = ids.flatMap((id, at): [Entry, Profile][] => {
      const name = this.units === 'documents' ? documents[id]?.title : cases[id]?.name;
      return name === undefined ? [] : [[entryFor(id, name), profiles[at]!]];
    });
    return { things: named.map(([entry]) => entry), rows: named.map(([, row]) => row) };
  }

  private partOf(all: PassageColumns, document: Document, text: Text | null): Part {
    const columns = this.narrowing.leftOf(all, document, text);
    if (!columns) return new Map();
    const here: LookedAt = { columns, document, text, spoken: text };
    const quick = this.quickRow(here);
    if (quick) return new Map(quick.features.length > 0 ? [[document.id, quick]] : []);
    const part = new Map<string, Map<number, number>>();
    const found = this.found.in(here);
    for (let entry = 0; entry < this.found.entries.length; entry++) {
      const some = found[entry];
      if (!some) continue;
      for (const { rows, start, end } of occurrencesOf(columns, some, this.asked.coders))
        for (const unit of this.unitsOf(here, rows, { start, end })) {
          const entries = part.get(unit) ?? new Map<number, number>();
          part.set(unit, entries.set(entry, (entries.get(entry) ?? 0) + 1));
        }
    }
    return new Map(Array.from(part, ([unit, entries]) => [unit, profileOf(entries)]));
  }

  /** Where codings alone say what is found, and all of a document is one unit: one walk over them. Null where it takes more. */
  private quickRow({ columns }: LookedAt): Profile | null {
    const codes = this.units === 'documents' ? this.found.entriesOf?.(columns) : undefined;
    if (!codes) return null;
    const joined = this.asked.coders === 'together' && codedBySeveral(columns);
    const { cells, amounts } = countEntries(this.scratch, columns, codes, this.found.entries.length, joined);
    return { features: cells, counts: amounts };
  }

  /** The units that have an occurrence, each once. */
  private unitsOf(
    { columns, document, text }: LookedAt,
    rows: readonly number[],
    { start, end }: { readonly start: number; readonly end: number },
  ): Iterable<Id> {
    if (this.units === 'documents') return [document.id];
    if (this.units === 'paragraphs')
      return (text?.paragraphs ?? []).flatMap((one, at) => (one.start < end && start < one.end ? [`${document.id} ${at}`] : []));
    return new Set(rows.flatMap((row) => this.study.finder.of(document, text, { start: columns.starts[row]!, end: columns.ends[row]! })));
  }
}

/** What some documents hold together of a unit: mostly only one has anything of it. */
function joinedProfile(some: readonly Profile[]): Profile {
  if (some.length === 1) return some[0]!;
  const all = new Map<number, number>();
  for (const { features, counts } of some)
    features.forEach((feature, at) => {
      all.set(feature, (all.get(feature) ?? 0) + counts[at]!);
    });
  return profileOf(all);
}
