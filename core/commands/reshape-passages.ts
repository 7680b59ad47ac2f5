import type { Id } from '../model/ids';
import type { Coding, Passage } from '../model/passage';
import { samePlace } from '../passages/relations';
import { outsideWords, standsIn } from '../passages/standing';
import type { Place } from '../model/stretch';
import type { StudyState } from '../model/study-state';
import { added, removed, updated, type RecordChange } from '../change/change';
import { CommandError, counted, found, short, type Action, type Command, type CommandContext } from '../change/command';
import { codesWanted, fieldsOf, passageById, passagesOf, type WantedCodes } from './passages';

/**
 * Gives a passage another start or end, or another area. Where another passage of the same coder is at that place
 * already, the two become one, with the codings and comments of both.
 */
export function movePassage(documentId: Id, passageId: Id, place: Place): Command {
  return (state) => {
    const passage = passageById(state, documentId, passageId);
    const document = found(state.tables.document[documentId], 'document');
    if (!standsIn(document, place)) throw new CommandError(outsideWords(document));
    if (samePlace(passage, place)) return null;
    const there = passagesOf(state, documentId).find(
      (one) => one.id !== passageId && one.coderId === passage.coderId && samePlace(one, place),
    );
    const sentence = `moved the ends of a passage in ${short(document.title)}`;
    if (!there) return { change: [updated('passage', passage, fieldsOf(place))], sentence };
    return {
      change: [
        updated('passage', there, {
          codings: united(there.codings, passage.codings),
          comment: [there.comment, passage.comment].filter(Boolean).join('\n'),
          ...((there.open ?? passage.open) && { open: true as const }),
        }),
        removed('passage', passage),
      ],
      heirs: { passages: new Map([[passageId, { documentId, id: there.id }]]) },
      sentence: `${sentence}, and joined it with the one there`,
    };
  };
}

/** Codings of two passages, each code of a coder once; of two the first stays. */
function united(first: readonly Coding[], second: readonly Coding[]): Coding[] {
  const key = (coding: Coding): string => coding.codeId + coding.coderId;
  const there = new Set(first.map(key));
  return [...first, ...second.filter((coding) => !there.has(key(coding)))];
}

/** Puts another code, one that is there or one made on the way, in the place of one on a passage, for whoever gave it. */
export function recode(documentId: Id, passageId: Id, fromId: Id, to: WantedCodes): Command {
  return (state, context) => recodeEach(state, context, [passageById(state, documentId, passageId)], fromId, to, 'a passage');
}

/** The same for every passage of a document that carries the code. */
export function recodeAllHere(documentId: Id, fromId: Id, toId: Id): Command {
  return (state, context) => {
    const carrying = passagesOf(state, documentId).filter((passage) => passage.codings.some((coding) => coding.codeId === fromId));
    const title = short(found(state.tables.document[documentId], 'document').title);
    const where = `${counted(carrying.length, 'passage')} in ${title}`;
    return recodeEach(state, context, carrying, fromId, { codeIds: [toId] }, where);
  };
}

function recodeEach(
  state: StudyState,
  context: CommandContext,
  passages: readonly Passage[],
  fromId: Id,
  to: WantedCodes,
  where: string,
): Action | null {
  const { codes, made } = codesWanted(state, context, to);
  const [code] = codes;
  if (!code || code.id === fromId) return null;
  const from = found(state.tables.code[fromId], 'code');
  const recoded = passages.flatMap((passage) => recoding(passage, fromId, code.id, context.now) ?? []);
  if (recoded.length === 0) return null;
  return {
    change: [...made.map((one) => added('code', one)), ...recoded],
    sentence: `coded ${where} with ${short(code.name)} instead of ${short(from.name)}`,
  };
}

function recoding(passage: Passage, fromId: Id, toId: Id, now: number): RecordChange | null {
  if (!passage.codings.some((coding) => coding.codeId === fromId)) return null;
  const kept = passage.codings.filter((coding) => coding.codeId !== fromId);
  // whoever exchanges a code has looked at it
  const moved = passage.codings
    .filter((coding) => coding.codeId === fromId)
    .map(({ swept: _, ...coding }) => ({ ...coding, codeId: toId, createdAt: now }));
  return updated('passage', passage, { codings: united(kept, moved) });
}

/** Rates one coding, or takes its rating away. @param rating from 1 to what the study rates to, or null */
export function rateCoding(documentId: Id, passageId: Id, codeId: Id, coderId: Id, rating: number | null): Command {
  return (state) => {
    const most = state.study.ratings;
    if (!most) throw new CommandError('This study does not use ratings.');
    if (rating !== null && !(Number.isInteger(rating) && rating >= 1 && rating <= most))
      throw new CommandError(`A rating is a whole number from 1 to ${most}.`);
    const passage = passageById(state, documentId, passageId);
    const coding = passage.codings.find((one) => one.codeId === codeId && one.coderId === coderId);
    if (!coding || (coding.rating ?? null) === rating) return null;
    const { rating: _rating, ...bare } = coding;
    const next = rating === null ? bare : { ...bare, rating };
    const name = short(state.tables.code[codeId]?.name ?? 'a code');
    return {
      change: [updated('passage', passage, { codings: passage.codings.map((one) => (one === coding ? next : one)) })],
      sentence: rating === null ? `took the rating off ${name} on a passage` : `rated ${name} on a passage ${rating} of ${most}`,
    };
  };
}
