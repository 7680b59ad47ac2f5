import type { AttributeValue } from '../model/case';
import type { Id } from '../model/ids';
import type { PassageCondition } from '../model/passage-condition';
import type { StudyState } from '../model/study-state';
import type { SetsIn } from '../sets/asked-queries';
import { documentsOfSet, membersOf } from '../sets/members';
import { naturalOrder } from '../text/natural-order';
import type { Document } from '../model/document';
import { showValue } from '../attributes/values';
import { caseFinderOf } from '../passages/case-finder';

/** What material is set side by side by. */
export type Grouping = { readonly attributeId: Id } | { readonly by: 'coder' | 'kind' | 'set' };

/** A group of the material, as a further part of a question, and how much there is of it. */
export interface Group {
  readonly name: string;
  readonly condition: PassageCondition;
  /** What a count is divided by: cases of the group that have a document in scope, or thousands of words of its documents; null where neither means anything. */
  readonly size: { readonly of: 'case' | '1,000 words'; readonly count: number } | null;
}

/** What groups are found in. */
type GroupsIn = Pick<StudyState, 'tables'> & Pick<SetsIn, 'answered'>;

/** Groups that can be looked at beside each other. */
export const MOST_GROUPS = 4;

/**
 * The largest groups of the material in scope, the values of an attribute in its own order.
 * @param documentIds the documents in scope
 */
export function groupsBy(grouping: Grouping, state: GroupsIn, documentIds: ReadonlySet<Id>): Group[] {
  const { tables } = state;
  const documents = Object.values(tables.document).filter((document) => documentIds.has(document.id));
  if ('by' in grouping) {
    if (grouping.by === 'coder')
      return Object.values(tables.coder)
        .slice(0, MOST_GROUPS)
        .map(({ id, name }) => ({
          name,
          condition: { carries: 'any', codes: { codeIds: [], setIds: [], withUnder: false }, reach: 'passage', given: { coderIds: [id] } },
          size: null,
        }));
    if (grouping.by === 'set') return setGroups(state, documents);
    return largest(documents, (document) => document.kind).map(([kind, some]) => ({
      name: kind,
      condition: { kinds: [kind] },
      size: thousands(some),
    }));
  }
  const attribute = tables.attribute[grouping.attributeId];
  if (!attribute) return [];
  const { id } = attribute;
  const having = (value: AttributeValue): PassageCondition => ({ attributeId: id, comparison: 'is', values: [value] });
  if (attribute.of === 'document')
    return inOwnOrder(
      attribute.choices,
      largest(documents, (document) => document.values[id]),
    ).map(([value, some]) => ({
      name: showValue(value),
      condition: having(value),
      size: thousands(some),
    }));
  const finder = caseFinderOf(tables.case);
  const present = new Set(documents.flatMap((document) => finder.in(document)));
  const cases = Object.values(tables.case).filter((one) => present.has(one.id));
  return inOwnOrder(
    attribute.choices,
    largest(cases, (one) => one.values[id]),
  ).map(([value, some]) => ({
    name: showValue(value),
    condition: having(value),
    size: { of: 'case', count: some.length },
  }));
}

function largest<T, V>(all: readonly T[], valueOf: (one: T) => V | undefined): [V, T[]][] {
  const groups = new Map<V, T[]>();
  for (const one of all) {
    const value = valueOf(one);
    if (value === undefined) continue;
    const some = groups.get(value);
    if (some) some.push(one);
    else groups.set(value, [one]);
  }
  return [...groups].sort(([, a], [, b]) => b.length - a.length).slice(0, MOST_GROUPS);
}

/** The sets with the most in scope, in their natural order. */
function setGroups(state: GroupsIn, documents: readonly Document[]): Group[] {
  const sets = Object.values(state.tables.set).map((set) => {
    const inSet = documentsOfSet(state, set);
    return { set, documents: documents.filter((document) => inSet.has(document.id)) };
  });
  const most = sets.sort((a, b) => b.documents.length - a.documents.length).slice(0, MOST_GROUPS);
  return naturalOrder(most, ({ set }) => set.name).map(({ set, documents: own }) => ({
    name: set.name,
    condition: { liesIn: { documentIds: [], folderIds: [], setIds: [set.id] } },
    size: set.of === 'case' ? { of: 'case', count: membersOf(state, set).length } : thousands(own),
  }));
}

const inOwnOrder = <T>(choices: readonly string[], groups: [AttributeValue, T[]][]): [AttributeValue, T[]][] =>
  groups.sort(([a], [b]) => choices.indexOf(String(a)) - choices.indexOf(String(b)));

const thousands = (documents: readonly { readonly words: number }[]): Group['size'] => ({
  of: '1,000 words',
  count: documents.reduce((sum, document) => sum + document.words, 0) / 1_000,
});
