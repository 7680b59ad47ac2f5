import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { unpackPassages } from '../passages/columns';
import { lineage } from '../passages/counting';

/**
 * Whether a study holds together: every reference points to something, every passage lies in its text,
 * the codebook and the folders are trees. Used after reading a study file and by the safety tests.
 * @param texts the texts by document id, or null to check without them
 * @returns what is wrong, in words; empty for a sound study
 */
export function checkStudy(state: StudyState, texts: ReadonlyMap<Id, Text> | null): string[] {
  const faults: string[] = [];
  const { tables } = state;
  const expect = (there: boolean, fault: string): void => {
    if (!there) faults.push(fault);
  };
  const has = (table: object, id: Id | null): boolean => id === null || Object.hasOwn(table, id);

  expect(has(tables.coder, state.study.currentCoderId), 'The study’s coder is missing.');
  for (const folder of Object.values(tables.folder))
    expect(has(tables.folder, folder.parentId), `The folder “${folder.name}” lies in a folder that is missing.`);
  for (const folder of Object.values(tables.folder)) {
    const seen = new Set<Id>();
    let at: Id | null = folder.id;
    while (at && !seen.has(at)) {
      seen.add(at);
      at = tables.folder[at]?.parentId ?? null;
    }
    expect(at === null, `The folder “${folder.name}” lies in itself.`);
  }
  for (const code of Object.values(tables.code)) {
    expect(has(tables.code, code.parentId), `The code “${code.name}” lies under a code that is missing.`);
    expect(has(tables.coder, code.coderId), `The code “${code.name}” was made by an unknown coder.`);
    const top = lineage(tables.code, code.id).at(-1)!;
    expect(
      tables.code[top]!.parentId === null || !has(tables.code, tables.code[top]!.parentId),
      `The code “${code.name}” lies under itself.`,
    );
  }
  for (const one of Object.values(tables.case)) {
    for (const { documentId, start, end } of one.stretches)
      expect(
        start < end && end <= (tables.document[documentId]?.characters ?? -1),
        `The case “${one.name}” owns a part of a document that is not there.`,
      );
    for (const id of one.documentIds) expect(has(tables.document, id), `The case “${one.name}” owns a document that is missing.`);
    for (const id of Object.keys(one.values))
      expect(has(tables.attribute, id), `The case “${one.name}” has a value of an attribute that is missing.`);
  }
  for (const set of Object.values(tables.set))
    for (const id of set.memberIds) expect(has(tables[set.of], id), `The set “${set.name}” has a member that is missing.`);
  for (const memo of Object.values(tables.memo)) {
    const about = memo.about;
    if (!about) continue;
    const there =
      about.type === 'passage' ? state.passages[about.documentId]?.ids.includes(about.id) === true : has(tables[about.type], about.id);
    expect(there, `The memo “${memo.title}” is about something that is missing.`);
  }
  for (const gloss of Object.values(tables.gloss))
    expect(has(tables.coder, gloss.coderId), `The gloss of “${gloss.term}” is by an unknown coder.`);
  for (const document of Object.values(tables.document)) {
    expect(has(tables.folder, document.folderId), `“${document.title}” lies in a folder that is missing.`);
    for (const id of Object.keys(document.values))
      expect(has(tables.attribute, id), `“${document.title}” has a value of an attribute that is missing.`);
    for (const answer of document.answers) {
      expect(has(tables.question, answer.questionId), `“${document.title}” answers a question that is missing.`);
      const { asked } = answer;
      const sound =
        answer.start <= answer.end &&
        answer.end <= document.characters &&
        (!asked || (asked.start < asked.end && asked.end <= document.characters));
      expect(sound, `An answer in “${document.title}” lies outside its text.`);
    }
    const { readTo = 0, units = [] } = document;
    expect(readTo <= document.characters, `“${document.title}” is marked as read beyond its end.`);
    expect(
      units.every((start, at) => (at === 0 ? start === 0 : start > units[at - 1]!) && start <= document.characters),
      `The idea-units of “${document.title}” are out of order or lie outside its text.`,
    );
    for (const speaker of document.speakers)
      expect(has(tables.case, speaker.caseId), `A speaker in “${document.title}” belongs to a case that is missing.`);
    const text = texts?.get(document.id);
    if (texts)
      expect(
        text !== undefined && text.text.length === document.characters,
        `The text of “${document.title}” is missing or of another length.`,
      );
    for (const paragraph of text?.paragraphs ?? []) {
      const sound =
        paragraph.start <= paragraph.body &&
        paragraph.body <= paragraph.end &&
        paragraph.end <= document.characters &&
        paragraph.speaker < document.speakers.length;
      expect(sound, `A paragraph of “${document.title}” lies outside its text.`);
    }
  }
  for (const columns of Object.values(state.passages)) faults.push(...checkPassages(state, columns.documentId));
  return faults;
}

function checkPassages(state: StudyState, documentId: Id): string[] {
  const document = state.tables.document[documentId];
  if (!document) return [`There are passages of a document that is missing (${documentId}).`];
  const faults: string[] = [];
  const seen = new Set<Id>();
  for (const passage of unpackPassages(state.passages[documentId]!)) {
    if (seen.has(passage.id)) faults.push(`“${document.title}” has the same passage twice.`);
    seen.add(passage.id);
    if (passage.start >= passage.end || passage.end > document.characters)
      faults.push(`A passage of “${document.title}” lies outside its text.`);
    for (const coding of passage.codings) {
      if (!Object.hasOwn(state.tables.code, coding.codeId)) faults.push(`A passage of “${document.title}” carries a code that is missing.`);
      if (!Object.hasOwn(state.tables.coder, coding.coderId))
        faults.push(`A passage of “${document.title}” was coded by an unknown coder.`);
    }
  }
  return faults;
}
