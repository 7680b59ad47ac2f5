import { hasText, type Document } from '../model/document';
import type { Id } from '../model/ids';
import { partsWithin, type LiesIn, type PassageCondition } from '../model/passage-condition';
import type { WordSearch } from '../model/word-search';
import { CaseFinder } from '../passages/case-finder';
import { idOfRow } from '../passages/columns';
import { liesWithin, withFoldersBelow } from '../passages/folders';
import { overlaps } from '../passages/relations';
import { membersOf } from '../sets/members';
import { speakerAt } from '../text/paragraphs';
import type { AskedStudy } from './asked-study';
import { carrying } from './carrying';
import { bothOf, notOf, type DocumentHere, type Rows } from './document-here';
import { factHolds } from './facts';
import { standingTo } from './standing';

/** Answers a condition for a document: flags of the passages that meet it. */
export type Answering = (here: DocumentHere) => Rows;

/**
 * A condition made ready to be asked of one document after another.
 * @param within kept queries that are being answered: one that asks for itself is answered by nothing
 */
export function answeringOf(condition: PassageCondition, study: AskedStudy, within: readonly Id[] = []): Answering {
  const each = (some: readonly PassageCondition[]) => some.map((one) => answeringOf(one, study, within));
  if ('all' in condition) return allOf(each(condition.all));
  if ('any' in condition) return anyOf(each(condition.any));
  if ('none' in condition) return not(anyOf(each(condition.none)));
  if ('carries' in condition) return carrying(condition, study);
  if ('standing' in condition) {
    const other = answeringOf(condition.to, study, within);
    return (here) => standingTo(here, other(here), condition.standing, condition.within);
  }
  if ('queryId' in condition) {
    const kept = study.tables.query[condition.queryId];
    if (!kept || within.includes(kept.id)) return (here) => here.none();
    return answeringOf({ all: kept.question.all }, study, [...within, kept.id]);
  }
  if ('attributeId' in condition) return factHolds(condition, study);
  if ('spokenBy' in condition) return eachRow(spokenBy(condition));
  if ('answers' in condition) return answersTo(new Set(condition.answers));
  if ('comment' in condition) return commented(condition);
  if ('hasWords' in condition) return hasWords(condition.hasWords, study);
  if ('memo' in condition) return eachRow((here) => (row) => study.passagesWithMemo.has(idOfRow(here.columns, row)) === condition.memo);
  if ('liesIn' in condition) return liesIn(condition.liesIn, study);
  if ('ofCases' in condition) return ofCases(new Set(condition.ofCases), study);
  if ('dated' in condition) return dated(condition.dated);
  if ('placed' in condition) return placed(condition.placed, study);
  if ('kinds' in condition) return (here) => here.every(condition.kinds.length === 0 || condition.kinds.includes(here.document.kind));
  return (here) => here.every(condition.grounds.length === 0 || condition.grounds.includes(here.columns.ground));
}

/** Whether the text of a document must be known to answer. */
export function needsText(condition: PassageCondition, document: Document, study: AskedStudy, within: readonly Id[] = []): boolean {
  if (!hasText(document)) return false;
  const owned = (): boolean => CaseFinder.needsText(document);
  if ('spokenBy' in condition) return document.speakers.length > 0;
  if ('placed' in condition) {
    if (condition.placed === 'by a speaker') return document.speakers.length > 0;
    return owned() && (condition.placed === 'of a case' || (condition.placed === 'in a set' && hasSetOfCases(study)));
  }
  if ('attributeId' in condition) return study.tables.attribute[condition.attributeId]?.of === 'case' && owned();
  if ('ofCases' in condition) return condition.ofCases.length > 0 && owned();
  if ('liesIn' in condition) return owned() && condition.liesIn.setIds.some((id) => study.tables.set[id]?.of === 'case');
  if ('hasWords' in condition || ('standing' in condition && condition.within)) return true;
  if (!('queryId' in condition)) return partsWithin(condition).some((part) => needsText(part, document, study, within));
  const kept = within.includes(condition.queryId) ? undefined : study.tables.query[condition.queryId];
  return kept !== undefined && needsText({ all: kept.question.all }, document, study, [...within, kept.id]);
}

const allOf =
  (some: readonly Answering[]): Answering =>
  (here) =>
    some.reduce((rows, one) => bothOf(rows, one(here)), here.every());

const anyOf =
  (some: readonly Answering[]): Answering =>
  (here) => {
    const rows = here.none();
    for (const one of some) {
      const met = one(here);
      for (let row = 0; row < rows.length; row++) rows[row]! |= met[row]!;
    }
    return rows;
  };

const not =
  (one: Answering): Answering =>
  (here) =>
    notOf(one(here));

/** Asks of each row. */
function eachRow(asking: (here: DocumentHere) => (row: number) => boolean): Answering {
  return (here) => {
    const holds = asking(here);
    const rows = here.none();
    for (let row = 0; row < rows.length; row++) if (holds(row)) rows[row] = 1;
    return rows;
  };
}

/** Who speaks where a passage begins; nobody speaks in a text without speakers, a recording or a picture. */
function spokenBy(asked: Extract<PassageCondition, { spokenBy: unknown }>): (here: DocumentHere) => (row: number) => boolean {
  const [cases, names] = [new Set(asked.caseIds), new Set(asked.names)];
  return ({ columns, document, spoken }) =>
    (row) => {
      const speaker = speakerAt(document, spoken, columns.starts[row]!);
      switch (asked.spokenBy) {
        case 'interviewers':
          return speaker?.interviewer ?? false;
        // where nobody is named, nobody is an interviewer
        case 'others':
          return !speaker?.interviewer;
        case 'these':
          return speaker !== undefined && (names.has(speaker.name) || (speaker.caseId !== null && cases.has(speaker.caseId)));
      }
    };
}

/** Words within the passage; what cannot be read as an expression is found nowhere. */
function hasWords(search: WordSearch, study: AskedStudy): Answering {
  const finder = study.finderOf(search);
  return (here) => {
    const rows = here.none();
    if (!finder || !here.text) return rows;
    const stretches = Array.from(rows, (_, row) => ({ start: here.columns.starts[row]!, end: here.columns.ends[row]! }));
    finder.holdsIn(study.indexOf(here.text), stretches).forEach((found, row) => (rows[row] = found ? 1 : 0));
    return rows;
  };
}

/** The passage lies, with at least a character, in an answer to one of the questions. */
const answersTo = (questionIds: ReadonlySet<Id>): Answering =>
  eachRow((here) => {
    const answers = here.columns.ground === 'text' ? here.document.answers.filter((one) => questionIds.has(one.questionId)) : [];
    return (row) => {
      const place = here.place(row);
      return answers.some((answer) => overlaps(answer, place));
    };
  });

function commented({ comment, words }: Extract<PassageCondition, { comment: unknown }>): Answering {
  const wanted = words.toLocaleLowerCase();
  return (here) => {
    const rows = here.none();
    for (const one of here.columns.comments)
      if (comment === 'open question' ? one.open : comment !== 'holds' || one.text.toLocaleLowerCase().includes(wanted)) rows[one.row] = 1;
    return comment === 'none' ? notOf(rows) : rows;
  };
}

/** Of one of some cases; of any passage where none is named. */
const ofCases = (caseIds: ReadonlySet<Id>, study: AskedStudy): Answering =>
  caseIds.size === 0
    ? (here) => here.every()
    : eachRow((here) => (row) => study.finder.of(here.document, here.spoken, here.place(row)).some((id) => caseIds.has(id)));

/** By the day of the document; one without a date is of no day. */
const dated =
  ({ from = '', to = '9999-12-31' }: Extract<PassageCondition, { dated: unknown }>['dated']): Answering =>
  (here) => {
    const { date } = here.document;
    return here.every(date !== null && date >= from && date <= to);
  };

/** In or of anything of a kind. */
function placed(what: Extract<PassageCondition, { placed: unknown }>['placed'], study: AskedStudy): Answering {
  const { tables } = study;
  switch (what) {
    case 'in a folder':
      return (here) => here.every(Object.hasOwn(tables.folder, here.document.folderId ?? ''));
    case 'in a set': {
      const setIds = Object.keys(tables.set);
      return setIds.length === 0 ? (here) => here.none() : liesIn({ documentIds: [], folderIds: [], setIds }, study);
    }
    case 'of a case':
      return eachRow((here) => (row) => study.finder.of(here.document, here.spoken, here.place(row)).length > 0);
    case 'in an answer':
      return answersTo(new Set(Object.keys(tables.question)));
    case 'by a speaker':
      return eachRow(
        ({ columns, document, spoken }) =>
          (row) =>
            speakerAt(document, spoken, columns.starts[row]!) !== undefined,
      );
  }
}

const hasSetOfCases = ({ tables }: AskedStudy): boolean => Object.values(tables.set).some((set) => set.of === 'case');

/** In a document, a folder or a set; a set of cases holds what is theirs. Where nothing is named, everything is in it. */
function liesIn({ documentIds, folderIds, setIds, foldersAlone }: LiesIn, study: AskedStudy): Answering {
  const { tables } = study;
  if (documentIds.length + folderIds.length + setIds.length === 0) return (here) => here.every();
  const sets = setIds.flatMap((id) => tables.set[id] ?? []);
  const members = (of: 'document' | 'case'): Id[] => sets.flatMap((set) => (set.of === of ? membersOf(study, set) : []));
  const documents = new Set([...documentIds, ...members('document')]);
  const folders = folderIds.map((id) => (foldersAlone ? new Set([id]) : withFoldersBelow(tables.folder, id)));
  const cases = new Set(members('case'));
  const theirs = ofCases(cases, study);
  return (here) => {
    if (documents.has(here.document.id) || folders.some((within) => liesWithin(here.document, within))) return here.every();
    return cases.size > 0 ? theirs(here) : here.none();
  };
}
