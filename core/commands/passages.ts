import { idsWithMemo } from '../memos/references';
import type { Id } from '../model/ids';
import type { Code } from '../model/code';
import type { Coding, Passage } from '../model/passage';
import type { StudyState } from '../model/study-state';
import { passageOf, unpackPassages } from '../passages/columns';
import { samePlace } from '../passages/relations';
import { outsideWords, standsIn } from '../passages/standing';
import type { Document } from '../model/document';
import type { OrderedPlace, Place, Stretch } from '../model/stretch';
import { added, removed, updated, type RecordChange } from '../change/change';
import { CommandError, counted, found, short, type Action, type Command, type CommandContext } from '../change/command';
import { newCode, type NewCode } from '../codebook/new-code';
import { mayChangeCodebook } from '../codebook/frozen';
import { proposal } from '../codebook/proposals';
import { shortened } from '../text/shortened';

/** Passages of a document as objects, in reading order. */
export function passagesOf(state: StudyState, documentId: Id): readonly Passage[] {
  const columns = state.passages[documentId];
  return columns ? unpackPassages(columns) : [];
}

/** The passage with an id. @throws CommandError if it is gone */
export function passageById(state: StudyState, documentId: Id, passageId: Id): Passage {
  return found(passageOf(state.passages[documentId], passageId), 'passage');
}

/** Codes that are there, and codes to be made on the way. */
export interface WantedCodes {
  readonly codeIds: readonly Id[];
  readonly newCodes?: readonly NewCode[];
}

/** Which place is to be coded, and with what. */
export interface Coded extends WantedCodes {
  readonly documentId: Id;
  readonly place: Place;
}

/** The codes that are wanted, those to be made as records that are not there yet. @throws CommandError if one is gone or has a name that is taken */
export function codesWanted(
  state: StudyState,
  context: CommandContext,
  { codeIds, newCodes = [] }: WantedCodes,
): { codes: Code[]; made: Code[] } {
  const made: Code[] = [];
  if (newCodes.length > 0) mayChangeCodebook(state);
  for (const wanted of newCodes) made.push(newCode(state, context, wanted, made));
  return { codes: [...codeIds.map((id) => found(state.tables.code[id], 'code')), ...made], made };
}

/**
 * Codes a place of a document: a stretch of a text, a span of a recording, an area of a picture. A passage of the same
 * coder at the very same place takes the codes on; else a new passage is marked. Codes it already carries by this coder
 * are left as they are.
 */
export function codePlace({ documentId, place, ...wanted }: Coded): Command {
  return (state, context) => {
    if (state.study.frozen && wanted.newCodes?.length) return markAndPropose(state, context, { documentId, place, ...wanted });
    const document = found(state.tables.document[documentId], 'document');
    checkPlace(document, place);
    const { codes, made } = codesWanted(state, context, wanted);
    const there = passagesOf(state, documentId).find((passage) => samePlace(passage, place) && passage.coderId === context.coderId);
    const marking = markWith(there ?? null, { documentId, place }, codes, context);
    if (!marking) return null;
    const names = codes.map((code) => short(code.name)).join(', ') || 'no code yet';
    return {
      change: [...made.map((code) => added('code', code)), marking],
      sentence: shortened(`coded a passage in ${short(document.title)} with ${names}`, LONGEST_SENTENCE),
    };
  };
}

/** While the codebook is frozen a new code is not made: the passage is marked, and the code proposed for it. */
function markAndPropose(state: StudyState, context: CommandContext, { documentId, place, codeIds, newCodes = [] }: Coded): Action | null {
  const document = found(state.tables.document[documentId], 'document');
  checkPlace(document, place);
  const { codes } = codesWanted(state, context, { codeIds });
  const there = passagesOf(state, documentId).find((passage) => samePlace(passage, place) && passage.coderId === context.coderId);
  const marking = markWith(there ?? null, { documentId, place }, codes, context);
  const passageId = there?.id ?? marking!.after!.id;
  const proposals = newCodes.flatMap((wanted) => proposal(state, context, wanted, [{ documentId, passageId }]) ?? []);
  if (!marking && proposals.length === 0) return null;
  return {
    change: [...(marking ? [marking] : []), ...proposals],
    sentence: shortened(
      `proposed ${newCodes.map((code) => short(code.name)).join(', ')} for a passage in ${short(document.title)}`,
      LONGEST_SENTENCE,
    ),
  };
}

/** Which stretches of one document are to be coded, all alike: of a text or a recording. */
export interface CodedPlaces extends Omit<Coded, 'place'> {
  readonly places: readonly OrderedPlace[];
}

/** Codes several stretches of a document alike, as one step; places named twice are coded once. */
export function codePlaces({ documentId, places, ...wanted }: CodedPlaces): Command {
  return (state, context) => {
    const document = found(state.tables.document[documentId], 'document');
    const { codes, made } = codesWanted(state, context, wanted);
    const key = ({ start, end }: Stretch): string => `${start} ${end}`;
    const own = new Map(
      passagesOf(state, documentId).flatMap((passage) => (passage.coderId === context.coderId ? [[key(passage), passage] as const] : [])),
    );
    const distinct = [...new Map(places.map((place) => [key(place), place])).values()];
    const markings = distinct.flatMap((place) => {
      checkPlace(document, place);
      return markWith(own.get(key(place)) ?? null, { documentId, place }, codes, context) ?? [];
    });
    if (markings.length === 0) return null;
    const names = codes.map((code) => short(code.name)).join(', ');
    return {
      change: [...made.map((code) => added('code', code)), ...markings],
      sentence: shortened(`coded ${counted(markings.length, 'passage')} in ${short(document.title)} with ${names}`, LONGEST_SENTENCE),
    };
  };
}

function markWith(
  there: Passage | null,
  at: { documentId: Id; place: Place },
  codes: readonly Code[],
  context: CommandContext,
): RecordChange | null {
  const carried = new Set((there?.codings ?? []).filter((coding) => coding.coderId === context.coderId).map((coding) => coding.codeId));
  const fresh = codes.filter((code, index) => !carried.has(code.id) && codes.indexOf(code) === index);
  const codings = fresh.map((code) => ({ codeId: code.id, coderId: context.coderId, createdAt: context.now }));
  if (there) return codings.length > 0 ? updated('passage', there, { codings: [...there.codings, ...codings] }) : null;
  return added('passage', {
    id: context.newId(),
    documentId: at.documentId,
    ...fieldsOf(at.place),
    comment: '',
    coderId: context.coderId,
    createdAt: context.now,
    codings,
  });
}

/**
 * Takes one code off a passage, for all coders or for one. A passage that then has no coding and no
 * comment, and that no memo is about, goes with it.
 */
export function removeCoding(documentId: Id, passageId: Id, codeId: Id, coderId: Id | null = null): Command {
  return (state) => {
    const passage = passageById(state, documentId, passageId);
    const codings = passage.codings.filter((coding) => coding.codeId !== codeId || (coderId !== null && coding.coderId !== coderId));
    if (codings.length === passage.codings.length) return null;
    const name = state.tables.code[codeId]?.name ?? 'a code';
    const title = state.tables.document[documentId]?.title ?? 'a document';
    return { change: [withCodings(state, passage, codings)], sentence: `took ${short(name)} off a passage in ${short(title)}` };
  };
}

/**
 * Takes some codings off a passage and leaves the others: for where not all of them are shown. A passage that then has
 * nothing goes, as with {@link removeCoding}.
 */
export function removeCodings(documentId: Id, passageId: Id, codings: readonly Pick<Coding, 'codeId' | 'coderId'>[]): Command {
  return (state) => {
    const passage = passageById(state, documentId, passageId);
    const left = passage.codings.filter((one) => !codings.some((gone) => gone.codeId === one.codeId && gone.coderId === one.coderId));
    const gone = passage.codings.length - left.length;
    if (gone === 0) return null;
    const title = state.tables.document[documentId]?.title ?? 'a document';
    return { change: [withCodings(state, passage, left)], sentence: `took ${counted(gone, 'coding')} off a passage in ${short(title)}` };
  };
}

/** The change that leaves a passage with these codings, removing it where nothing else keeps it. */
export function withCodings(state: StudyState, passage: Passage, codings: Passage['codings']): RecordChange {
  const kept = codings.length > 0 || passage.comment !== '' || idsWithMemo(state.tables.memo).has(passage.id);
  return kept ? updated('passage', passage, { codings }) : removed('passage', passage);
}

/** Removes a passage with its codings and comment. Memos about it stay, about its document from then on. */
export function removePassage(documentId: Id, passageId: Id): Command {
  return (state): Action => {
    const passage = passageById(state, documentId, passageId);
    const title = state.tables.document[documentId]?.title ?? 'a document';
    return {
      change: [removed('passage', passage)],
      sentence: `removed a passage with ${counted(passage.codings.length, 'coding')} from ${short(title)}`,
    };
  };
}

/** Sets, changes or (with an empty text) takes away the comment on a passage. */
export function setComment(documentId: Id, passageId: Id, comment: string): Command {
  return (state) => {
    const passage = passageById(state, documentId, passageId);
    const text = comment.trim();
    if (text === passage.comment) return null;
    const title = short(state.tables.document[documentId]?.title ?? 'a document');
    const { open, ...rest } = passage;
    const after = withCodings(state, { ...rest, comment: text, ...(open && text && { open }) }, passage.codings).after;
    return {
      change: [{ type: 'passage', before: passage, after } as RecordChange],
      sentence: text === '' ? `took the comment off a passage in ${title}` : `commented on a passage in ${title}`,
    };
  };
}

/** A place as the fields of a passage, whatever else the object has. */
export const fieldsOf = ({ start, end, area }: Place): Place => (area ? { start, end, area } : { start, end });

/** @throws CommandError */
function checkPlace(document: Document, place: Place): void {
  if (!standsIn(document, place)) throw new CommandError(outsideWords(document));
}

/** Characters of a sentence for the log. */
const LONGEST_SENTENCE = 400;
