import type { Id } from '../model/ids';
import type { Coding, Passage } from '../model/passage';
import { added, updated } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { codesWanted, passageById, withCodings, type WantedCodes } from './passages';

/** A passage by its document. */
export interface PassageAt {
  readonly documentId: Id;
  readonly passageId: Id;
}

/** Ids of passages, by document. */
export function passageIdsByDocument(places: readonly PassageAt[]): Map<Id, Set<Id>> {
  const byDocument = new Map<Id, Set<Id>>();
  for (const { documentId, passageId } of places) {
    const ids = byDocument.get(documentId);
    if (ids) ids.add(passageId);
    else byDocument.set(documentId, new Set([passageId]));
  }
  return byDocument;
}

/**
 * Gives passages other codes in place of one: each coding with the code becomes codings with the new ones, of the
 * same coder and time. Splitting a code is doing this passage by passage; with no new code the passages only lose it,
 * and with `keep` they carry both.
 */
export function moveCodings(fromId: Id, places: readonly PassageAt[], to: WantedCodes, keep = false): Command {
  return (state, context) => {
    const from = found(state.tables.code[fromId], 'code');
    const { codes, made } = codesWanted(state, context, to);
    if (codes.some((code) => code.id === fromId)) throw new CommandError(`The passages carry ${from.name} already.`);
    const marked = places.flatMap(({ documentId, passageId }) => {
      const passage = passageById(state, documentId, passageId);
      const codings = withCodesInstead(
        passage,
        fromId,
        codes.map((code) => code.id),
        keep,
      );
      return codings ? [codings.length > 0 ? updated('passage', passage, { codings }) : withCodings(state, passage, codings)] : [];
    });
    if (marked.length === 0 && made.length === 0) return null;
    const names = codes.map((code) => short(code.name)).join(', ');
    const verb = codes.length === 0 ? `took ${short(from.name)} off` : keep ? `gave ${names} to` : `moved to ${names}`;
    const where = codes.length === 0 || keep ? '' : ` from ${short(from.name)}`;
    return {
      change: [...made.map((code) => added('code', code)), ...marked],
      sentence: `${verb} ${counted(marked.length, 'passage')}${where}`.slice(0, 500),
    };
  };
}

function withCodesInstead(passage: Passage, fromId: Id, toIds: readonly Id[], keep: boolean): Coding[] | null {
  const moving = passage.codings.filter((coding) => coding.codeId === fromId);
  if (moving.length === 0) return null;
  const kept = keep ? [...passage.codings] : passage.codings.filter((coding) => coding.codeId !== fromId);
  for (const coding of moving)
    for (const codeId of toIds)
      if (!kept.some((one) => one.codeId === codeId && one.coderId === coding.coderId)) kept.push({ ...coding, codeId });
  return kept;
}
