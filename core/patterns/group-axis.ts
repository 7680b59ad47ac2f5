import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { GroupsAsked } from '../model/pattern';
import type { Place } from '../model/stretch';
import { overlaps } from '../passages/relations';
import type { AskedStudy } from '../queries/asked-study';
import { KINDS_IN_WORDS } from '../queries/words';
import { membersOf } from '../sets/members';
import { naturalOrder } from '../text/natural-order';
import { speakerAt } from '../text/paragraphs';
import { byPlace, entryFor, type Entry, type GroupAxis, type Placed } from './axis';
import { casesPresent, ofCases } from './case-axis';
import { nestedAxis } from './nested-axis';

const NONE_KEY = '';

/** A group for what is in no other; it is left out of a table where nothing is in it. */
export const rest = (name: string): Entry => ({ key: NONE_KEY, path: [name], rest: true });

/**
 * The groups that material is divided into.
 * @param documents those in scope: groups of which none of them has anything are left out
 */
export function groupAxisOf(asked: GroupsAsked, study: AskedStudy, documents: readonly Document[]): GroupAxis {
  if ('nested' in asked) return nestedAxis(asked.nested, study, documents);
  const { tables } = study;
  switch (asked.by) {
    case 'everything':
      return wholes([{ key: 'all', path: ['all'] }], () => [0]);
    case 'document':
      return byKey(
        documents.map(({ id, title }) => entryFor(id, title)),
        (document) => document.id,
      );
    case 'folder': {
      const used = naturalOrder([...new Set(documents.flatMap((one) => tables.folder[one.folderId ?? ''] ?? []))], (folder) => folder.name);
      return byKey([...used.map(({ id, name }) => entryFor(id, name)), rest('in no folder')], (document) => document.folderId ?? '');
    }
    case 'kind': {
      const kinds = [...new Set(documents.map((document) => document.kind))].sort();
      return byKey(
        kinds.map((kind) => ({ key: kind, path: [KINDS_IN_WORDS[kind]] })),
        (document) => document.kind,
      );
    }
    case 'month': {
      const months = [...new Set(documents.flatMap(({ date }) => date?.slice(0, 7) ?? []))].sort();
      return byKey(
        [...months.map((month) => ({ key: month, path: [month] })), rest('without a date')],
        ({ date }) => date?.slice(0, 7) ?? '',
      );
    }
    case 'set':
      return setAxis(study);
    case 'case': {
      const present = naturalOrder(casesPresent(study, documents), (id) => tables.case[id]!.name);
      const entries = [...present.map((id) => entryFor(id, tables.case[id]!.name)), rest('of nobody')];
      const placeOf = new Map(present.map((id, at) => [id, [at]]));
      return ofCases(study, entries, (_, id) => placeOf.get(id) ?? [], [present.length]);
    }
    case 'speaker':
      return speakerAxis(documents);
    case 'question':
      return questionAxis(study, documents);
    case 'coder': {
      const coders = naturalOrder(Object.values(tables.coder), (coder) => coder.name);
      return {
        entries: coders.map(({ id, name }) => entryFor(id, name)),
        needsSpoken: () => false,
        of: () => [],
        coders: new Map(coders.map(({ id }, at) => [id, at])),
      };
    }
  }
}

/** Groups that depend on the document alone. */
function wholes(entries: readonly Entry[], of: (document: Document) => readonly number[]): GroupAxis {
  return { entries, needsSpoken: () => false, of: ({ document }) => of(document) };
}

/** One group a document, by its key. */
function byKey(entries: readonly Entry[], keyOf: (document: Document) => string): GroupAxis {
  const placeOf = new Map(entries.map(({ key }, at) => [key, [at]]));
  return wholes(entries, (document) => placeOf.get(keyOf(document)) ?? placeOf.get(NONE_KEY) ?? []);
}

/** Sets of documents and of cases; a place can be in any number of them. */
function setAxis(study: AskedStudy): GroupAxis {
  const sets = naturalOrder(Object.values(study.tables.set), (set) => set.name);
  const ofDocument = new Map<Id, number[]>();
  const ofCase = new Map<Id, number[]>();
  sets.forEach((set, at) => {
    const groups = set.of === 'document' ? ofDocument : ofCase;
    for (const id of membersOf(study, set)) groups.set(id, [...(groups.get(id) ?? []), at]);
  });
  const entries = [...sets.map(({ id, name }) => entryFor(id, name)), rest('in no set')];
  const orNone = (groups: readonly number[]): readonly number[] => (groups.length > 0 ? groups : [sets.length]);
  const own = (document: Document): readonly number[] => ofDocument.get(document.id) ?? [];
  if (ofCase.size === 0) return wholes(entries, (document) => orNone(own(document)));
  return ofCases(
    study,
    entries,
    (document, id) => orNone([...new Set([...own(document), ...(ofCase.get(id) ?? [])])]),
    (document) => orNone(own(document)),
  );
}

/** Speakers by name, whether or not they are a case. */
function speakerAxis(documents: readonly Document[]): GroupAxis {
  const names = naturalOrder([...new Set(documents.flatMap((one) => one.speakers.map((speaker) => speaker.name)))], (name) => name);
  const placeOf = new Map(names.map((name, at) => [name, [at]]));
  const nobody = [names.length];
  return {
    entries: [...names.map((name) => ({ key: `=${name}`, path: [name] })), rest('nobody named')],
    needsSpoken: (document) => document.speakers.length > 0,
    of: ({ document, spoken }) => {
      const at = (place: Place): readonly number[] => {
        const speaker = speakerAt(document, spoken, place.start);
        return speaker ? placeOf.get(speaker.name)! : nobody;
      };
      return document.speakers.length === 0 ? nobody : byPlace(at);
    },
  };
}

/** Questions in their order, by what lies in an answer to them. */
function questionAxis({ tables }: AskedStudy, documents: readonly Document[]): GroupAxis {
  const used = new Set(documents.flatMap((document) => document.answers.map((answer) => answer.questionId)));
  const questions = Object.values(tables.question)
    .filter((one) => used.has(one.id))
    .sort((a, b) => a.order - b.order);
  const placeOf = new Map(questions.map(({ id }, at) => [id, at]));
  const none = [questions.length];
  return {
    entries: [...questions.map(({ id, text }) => entryFor(id, text)), rest('outside of answers')],
    needsSpoken: () => false,
    of: ({ document }: Placed) => {
      if (document.answers.length === 0 || document.ground.of !== 'text') return none;
      const at = (place: Place): readonly number[] => {
        const groups = document.answers.flatMap((answer) => (overlaps(answer, place) ? (placeOf.get(answer.questionId) ?? []) : []));
        return groups.length > 0 ? [...new Set(groups)] : none;
      };
      return byPlace(at);
    },
  };
}
