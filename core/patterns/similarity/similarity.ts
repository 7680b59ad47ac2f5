import type { AttributeValue } from '../../model/case';
import type { Id } from '../../model/ids';
import type { SimilarityAsked } from '../../model/pattern';
import type { StudyState } from '../../model/study-state';
import { entryFor, type Entry } from '../axis';
import { gowerLikeness } from './gower';
import { cosineLikeness, jaccardLikeness, type Likeness } from './likeness';
import { planOf, type Plan } from './plan';
import { profileOf } from './profile';
import type { Profiles } from './profiles';
import { treeOf, type Merge } from './tree';

/** As many things are compared at most: each with each other, on a plan that can be read. */
export const MOST_COMPARED = 500;

/** How alike things are, where they lie on a plan, and how they come together. */
export interface Similarity {
  readonly things: readonly Entry[];
  readonly likeness: Likeness;
  readonly plan: Plan;
  readonly merges: readonly Merge[];
  /** Things that were left out because there were more than {@link MOST_COMPARED}: those with the least. */
  readonly left: number;
}

/** Compares things by their profiles, documents and cases also by attributes. @param present ids of all documents or cases in scope */
export function similarityOf(
  asked: Pick<SimilarityAsked, 'compared' | 'by' | 'attributeIds'>,
  profiles: Profiles,
  tables: Pick<StudyState['tables'], 'attribute' | 'document' | 'case'>,
  present: readonly Id[],
): Similarity {
  const facts = factsOf(asked, tables);
  const all = facts.length > 0 ? withFacts(profiles, facts, asked, tables, present) : profiles;
  const { things, rows } = most(all);
  const size = things.length;
  const likeness =
    facts.length > 0
      ? gowerLikeness(
          rows,
          facts.map(({ attribute, of }) => ({ attribute, values: things.map(({ id }) => of(id ?? '')) })),
        )
      : asked.by === 'presence'
        ? jaccardLikeness(rows)
        : cosineLikeness(rows);
  return { things, likeness, plan: planOf(likeness, size), merges: treeOf(likeness, size), left: all.things.length - size };
}

interface Fact {
  readonly attribute: StudyState['tables']['attribute'][Id];
  of(id: Id): AttributeValue | undefined;
}

/** The attributes that what is compared has. */
function factsOf(
  { compared, attributeIds }: Pick<SimilarityAsked, 'compared' | 'attributeIds'>,
  tables: Pick<StudyState['tables'], 'attribute' | 'document' | 'case'>,
): Fact[] {
  if (compared === 'codes') return [];
  const [of, table] = compared === 'documents' ? (['document', tables.document] as const) : (['case', tables.case] as const);
  return attributeIds.flatMap((id) => {
    const attribute = tables.attribute[id];
    return attribute?.of === of ? [{ attribute, of: (thing: Id) => table[thing]?.values[id] }] : [];
  });
}

/** Also those without a code of which a fact is known. */
function withFacts(
  { things, rows }: Profiles,
  facts: readonly Fact[],
  { compared }: Pick<SimilarityAsked, 'compared'>,
  tables: Pick<StudyState['tables'], 'document' | 'case'>,
  present: readonly Id[],
): Profiles {
  const known = new Set(things.map(({ id }) => id));
  const more = present.filter((id) => !known.has(id) && facts.some((fact) => fact.of(id) !== undefined));
  const nameOf = (id: Id): string => (compared === 'documents' ? tables.document[id]?.title : tables.case[id]?.name) ?? '';
  return {
    things: [...things, ...more.map((id) => entryFor(id, nameOf(id)))],
    rows: [...rows, ...more.map(() => profileOf(new Map()))],
  };
}

/** Those that have the most, in the order they came. */
function most({ things, rows }: Profiles): Profiles {
  if (things.length <= MOST_COMPARED) return { things, rows };
  const had = rows.map(({ counts }) => counts.reduce((sum, count) => sum + count, 0));
  const kept = new Set([...things.keys()].sort((a, b) => had[b]! - had[a]! || a - b).slice(0, MOST_COMPARED));
  const of = <T>(some: readonly T[]): T[] => some.filter((_, at) => kept.has(at));
  return { things: of(things), rows: of(rows) };
}
