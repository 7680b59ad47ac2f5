import { compareValues } from '../attributes/values';
import { testOf } from '../conditions/condition';
import type { Attribute, Case } from '../model/case';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { ConditionPart, MemberSet } from '../model/set';
import type { StudyState } from '../model/study-state';

/** Ids of a set's members: those put in by hand that are still there, or all that meet its condition. */
export function membersOf(state: Pick<StudyState, 'tables'>, set: MemberSet): Id[] {
  const table = state.tables[set.of];
  if (!set.condition) return set.memberIds.filter((id) => Object.hasOwn(table, id));
  return Object.values<Case | Document>(table)
    .filter(memberTest(state, set.condition))
    .map((record) => record.id);
}

/** Ids of the documents that a set stands for: its members, or all in which its cases own something or speak. */
export function documentsOfSet(state: Pick<StudyState, 'tables'>, set: MemberSet): Set<Id> {
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
export const meets = (state: Pick<StudyState, 'tables'>, record: Case | Document, condition: readonly ConditionPart[]): boolean =>
  memberTest(state, condition)(record);

function memberTest(state: Pick<StudyState, 'tables'>, condition: readonly ConditionPart[]): (record: Case | Document) => boolean {
  const attributeOf = (what: What): Attribute | undefined =>
    typeof what === 'object' ? state.tables.attribute[what.attributeId] : undefined;
  return testOf<What, Case | Document>(
    { all: condition.map(({ what, comparison, value }) => ({ of: what, comparison, value })) },
    {
      read: (what) => {
        if (typeof what === 'object') return (record) => record.values[what.attributeId];
        return what === 'kind' ? (record) => (record as Document).kind : (record) => (record as Document).folderId ?? undefined;
      },
      // of an attribute that is gone nothing comes before anything
      compare: (what, a, b) => {
        const attribute = attributeOf(what);
        return attribute ? compareValues(attribute, a, b) : 0;
      },
    },
  );
}

type What = ConditionPart['what'];

/** A condition as a sentence: "home is Saltpans and age is under 40". */
export function conditionSentence(state: Pick<StudyState, 'tables'>, condition: readonly ConditionPart[]): string {
  return condition
    .map(({ what, comparison, value }) => {
      const name = typeof what === 'object' ? (state.tables.attribute[what.attributeId]?.name ?? 'a deleted attribute') : what;
      const shown =
        what === 'folder'
          ? (state.tables.folder[String(value)]?.name ?? 'a deleted folder')
          : typeof value === 'boolean'
            ? value
              ? 'yes'
              : 'no'
            : String(value);
      return comparison === 'is known' || comparison === 'is not known' ? `${name} ${comparison}` : `${name} ${comparison} ${shown}`;
    })
    .join(' and ');
}
