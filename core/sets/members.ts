import { compareValues } from '../attributes/values';
import type { Case } from '../model/case';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { ConditionPart, MemberSet } from '../model/set';
import type { StudyState } from '../model/study-state';

/** Ids of a set's members: those put in by hand that are still there, or all that meet its condition. */
export function membersOf(state: Pick<StudyState, 'tables'>, set: MemberSet): Id[] {
  const table = state.tables[set.of];
  if (!set.condition) return set.memberIds.filter((id) => Object.hasOwn(table, id));
  const { condition } = set;
  return Object.values<Case | Document>(table)
    .filter((record) => meets(state, record, condition))
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
export function meets(state: Pick<StudyState, 'tables'>, record: Case | Document, condition: readonly ConditionPart[]): boolean {
  return condition.every((part) => meetsPart(state, record, part));
}

function meetsPart(state: Pick<StudyState, 'tables'>, record: Case | Document, { what, comparison, value }: ConditionPart): boolean {
  const attribute = typeof what === 'object' ? state.tables.attribute[what.attributeId] : undefined;
  const there =
    typeof what === 'object'
      ? record.values[what.attributeId]
      : what === 'kind'
        ? (record as Document).kind
        : ((record as Document).folderId ?? undefined);
  switch (comparison) {
    case 'is known':
      return there !== undefined;
    case 'is not known':
      return there === undefined;
    case 'is not':
      return there !== value;
    case 'is':
      return there === value;
    case 'holds':
      return there !== undefined && String(there).toLocaleLowerCase().includes(String(value).toLocaleLowerCase());
    case 'is over':
      return there !== undefined && attribute !== undefined && compareValues(attribute, there, value) > 0;
    case 'is under':
      return there !== undefined && attribute !== undefined && compareValues(attribute, there, value) < 0;
  }
}

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
