import { compareValues } from '../attributes/values';
import { testOf } from '../conditions/condition';
import { NOTHING_ANSWERED, type FoundBy } from '../model/answered';
import type { Attribute, Case } from '../model/case';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { ConditionPart, MemberSet } from '../model/set';
import { quoted } from '../text/quoted';
import { queriesIn, type SetsIn } from './asked-queries';

/** Ids of a set's members: those put in by hand that are still there, or all that meet its condition. */
export function membersOf(state: SetsIn, set: MemberSet): Id[] {
  const table = state.tables[set.of];
  if (!set.condition) return set.memberIds.filter((id) => Object.hasOwn(table, id));
  return Object.values<Case | Document>(table)
    .filter(memberTest(state, set.condition))
    .map((record) => record.id);
}

/** Whether all is known that a set asks for: of what it asks of kept queries, this may be a moment later. */
export const isKnown = ({ answered = NOTHING_ANSWERED }: SetsIn, { condition }: MemberSet): boolean =>
  queriesIn(condition).every((id) => Object.hasOwn(answered, id));

/** Ids of the documents that a set stands for: its members, or all in which its cases own something or speak. */
export function documentsOfSet(state: SetsIn, set: MemberSet): Set<Id> {
  const members = membersOf(state, set);
  if (set.of === 'document') return new Set(members);
  const cases = new Set(members);
  const documents = new Set<Id>();
  for (const id of cases) {
    const one = state.tables.case[id]!;
    for (const documentId of one.documentIds) documents.add(documentId);
    for (const { documentId } of one.stretches) documents.add(documentId);
  }
  for (const document of Object.values(state.tables.document))
    if (document.speakers.some((speaker) => speaker.caseId !== null && cases.has(speaker.caseId))) documents.add(document.id);
  return documents;
}

/** Whether a case or document meets every part of a condition. What is not known meets only "is not known" and "is not". */
export const meets = (state: SetsIn, record: Case | Document, condition: readonly ConditionPart[]): boolean =>
  memberTest(state, condition)(record);

function memberTest(state: SetsIn, condition: readonly ConditionPart[]): (record: Case | Document) => boolean {
  const attributeOf = (what: What): Attribute | undefined =>
    typeof what === 'object' && 'attributeId' in what ? state.tables.attribute[what.attributeId] : undefined;
  return testOf<What, Case | Document>(
    { all: condition.map(({ what, comparison, value }) => ({ of: what, comparison, value })) },
    {
      read: (what) => {
        if (what === 'kind') return (record) => (record as Document).kind;
        if (what === 'folder') return (record) => (record as Document).folderId ?? undefined;
        if ('attributeId' in what) return (record) => record.values[what.attributeId];
        const { documentIds, caseIds } = (state.answered ?? NOTHING_ANSWERED)[what.queryId] ?? NOBODY;
        const found = new Set([...documentIds, ...caseIds]);
        return (record) => found.has(record.id);
      },
      // of an attribute that is gone nothing comes before anything
      compare: (what, a, b) => {
        const attribute = attributeOf(what);
        return attribute ? compareValues(attribute, a, b) : 0;
      },
    },
  );
}

const NOBODY: FoundBy = { documentIds: [], caseIds: [] };

type What = ConditionPart['what'];

/** A condition as a sentence: "home is Saltpans and age is under 40 and “Waiting” finds something". */
export const conditionSentence = (state: SetsIn, condition: readonly ConditionPart[]): string =>
  condition.map((part) => partInWords(state, part)).join(' and ');

function partInWords({ tables }: SetsIn, { what, comparison, value }: ConditionPart): string {
  if (typeof what === 'object' && 'queryId' in what) {
    const query = tables.query[what.queryId];
    return `${query ? quoted(query.name) : 'a deleted query'} finds ${(value === true) === (comparison === 'is') ? 'something' : 'nothing'}`;
  }
  const name = typeof what === 'object' ? (tables.attribute[what.attributeId]?.name ?? 'a deleted attribute') : what;
  if (comparison === 'is known' || comparison === 'is not known') return `${name} ${comparison}`;
  if (what === 'folder') return `${name} ${comparison} ${tables.folder[String(value)]?.name ?? 'a deleted folder'}`;
  return `${name} ${comparison} ${typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value)}`;
}
