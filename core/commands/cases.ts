import type { Case, DocumentStretch } from '../model/case';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { standsIn } from '../passages/standing';
import { tidyLine } from '../text/normalise';
import { added, removed, updated, type Change } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';

/** Makes a case. @param id where the caller needs to know it */
export function addCase(rawName: string, id?: Id): Command {
  return (state, context) => {
    const name = nameOf(state, rawName);
    const one: Case = { id: id ?? context.newId(), name, description: '', documentIds: [], stretches: [], values: {} };
    return { change: [added('case', one)], sentence: `made the ${state.study.caseWord} ${short(name)}` };
  };
}

function nameOf(state: StudyState, raw: string): string {
  const name = tidyLine(raw);
  if (!name) throw new CommandError(`A ${state.study.caseWord} needs a name.`);
  return name;
}

/** Renames or describes a case. */
export function editCase(caseId: Id, fields: Partial<Pick<Case, 'name' | 'description'>>): Command {
  return (state) => {
    const one = found(state.tables.case[caseId], state.study.caseWord);
    const next = { ...fields, ...(fields.name === undefined ? {} : { name: nameOf(state, fields.name) }) };
    if ((next.name ?? one.name) === one.name && (next.description ?? one.description) === one.description) return null;
    const sentence =
      next.name !== undefined && next.name !== one.name
        ? `renamed ${short(one.name)} to ${short(next.name)}`
        : `described ${short(one.name)}`;
    return { change: [updated('case', one, next)], sentence };
  };
}

/** Deletes cases. Their documents stay; memos about them stay, about nothing; speakers belong to nobody. */
export function deleteCases(caseIds: readonly Id[]): Command {
  return (state) => {
    const cases = caseIds.map((id) => found(state.tables.case[id], state.study.caseWord));
    if (cases.length === 0) return null;
    const change: Change = cases.map((one) => removed('case', one));
    return { change, sentence: `deleted ${cases.length === 1 ? short(cases[0]!.name) : counted(cases.length, state.study.caseWord)}` };
  };
}

/** Says which documents a case owns whole. */
export function ownDocuments(caseId: Id, documentIds: readonly Id[], owns: boolean): Command {
  return (state) => {
    const one = found(state.tables.case[caseId], state.study.caseWord);
    const ids = new Set(documentIds);
    const next = owns
      ? [...one.documentIds, ...documentIds.filter((id) => !one.documentIds.includes(id))]
      : one.documentIds.filter((id) => !ids.has(id));
    if (next.length === one.documentIds.length) return null;
    const what =
      documentIds.length === 1
        ? short(found(state.tables.document[documentIds[0]!], 'document').title)
        : counted(documentIds.length, 'document');
    return {
      change: [updated('case', one, { documentIds: next })],
      sentence: `${owns ? 'gave' : 'took'} ${what} ${owns ? 'to' : 'from'} ${short(one.name)}`,
    };
  };
}

/** Gives a case a part of a document, or takes it away; parts that overlap or touch become one. */
export function ownStretch(caseId: Id, stretch: DocumentStretch, owns: boolean): Command {
  return (state) => {
    const one = found(state.tables.case[caseId], state.study.caseWord);
    const document = found(state.tables.document[stretch.documentId], 'document');
    if (!standsIn(document, stretch)) throw new CommandError('Select the words that belong to the case.');
    const { documentId } = stretch;
    const others = one.stretches.filter((other) => other.documentId !== documentId);
    const here = one.stretches.filter((other) => other.documentId === documentId);
    const next = owns
      ? joined([...here, stretch])
      : here.flatMap((other) => [
          ...(other.start < Math.min(other.end, stretch.start)
            ? [{ documentId, start: other.start, end: Math.min(other.end, stretch.start) }]
            : []),
          ...(Math.max(other.start, stretch.end) < other.end
            ? [{ documentId, start: Math.max(other.start, stretch.end), end: other.end }]
            : []),
        ]);
    return {
      change: [updated('case', one, { stretches: [...others, ...next] })],
      sentence: `${owns ? 'gave' : 'took'} a part of ${short(document.title)} ${owns ? 'to' : 'from'} ${short(one.name)}`,
    };
  };
}

function joined(stretches: readonly DocumentStretch[]): DocumentStretch[] {
  const result: DocumentStretch[] = [];
  for (const stretch of [...stretches].sort((a, b) => a.start - b.start)) {
    const last = result.at(-1);
    if (last && stretch.start <= last.end) last.end = Math.max(last.end, stretch.end);
    else result.push({ ...stretch });
  }
  return result;
}

/** Says whose words a speaker's turns are, and whether the speaker asks the questions. */
export function editSpeaker(
  documentId: Id,
  number: number,
  fields: { readonly caseId?: Id | null; readonly interviewer?: boolean },
): Command {
  return (state) => {
    const document = found(state.tables.document[documentId], 'document');
    const speaker = found(document.speakers[number], 'speaker');
    const next = { ...speaker, ...fields };
    if (next.caseId === speaker.caseId && next.interviewer === speaker.interviewer) return null;
    const whose = next.caseId ? ` to ${short(found(state.tables.case[next.caseId], 'case').name)}` : '';
    return {
      change: [updated('document', document, { speakers: document.speakers.map((one, at) => (at === number ? next : one)) })],
      sentence: whose
        ? `connected ${short(speaker.name)} in ${short(document.title)}${whose}`
        : `changed the speaker ${short(speaker.name)} in ${short(document.title)}`,
    };
  };
}
