import { added, updated } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { newCode } from '../codebook/new-code';
import { mayChangeCodebook } from '../codebook/frozen';
import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import type { StudyState } from '../model/study-state';
import { idOfRow, passagesInRows } from '../passages/columns';
import { passageIdsByDocument, type PassageAt } from './move-codings';
import { codesWanted, type WantedCodes } from './passages';

/** Gives codes to passages that are there, as one step, however many; what carries one by this coder already is let be. */
export function codePassages(places: readonly PassageAt[], wanted: WantedCodes): Command {
  return (state, context) => {
    const { codes, made } = codesWanted(state, context, wanted);
    const marked = passagesAt(state, places).flatMap((passage) => {
      const own = new Set(passage.codings.flatMap((coding) => (coding.coderId === context.coderId ? [coding.codeId] : [])));
      const fresh = codes.filter((code) => !own.has(code.id));
      if (fresh.length === 0) return [];
      const given = fresh.map((code) => ({ codeId: code.id, coderId: context.coderId, createdAt: context.now }));
      return [updated('passage', passage, { codings: [...passage.codings, ...given] })];
    });
    if (marked.length === 0 && made.length === 0) return null;
    return {
      change: [...made.map((code) => added('code', code)), ...marked],
      sentence: `gave ${codes.map((code) => short(code.name)).join(', ')} to ${counted(marked.length, 'passage')}`.slice(0, 500),
    };
  };
}

/** Makes a code of what answers a question: all of it carries the code, which says in its notes where it came from. */
export function codeFromAnswer(name: string, question: string, places: readonly PassageAt[]): Command {
  return (state, context) => {
    if (places.length === 0) throw new CommandError('Nothing answers the query: there is nothing to carry the code.');
    mayChangeCodebook(state);
    const code = {
      ...newCode(state, context, { name, parentId: null }),
      notes: `Made of the ${counted(places.length, 'passage')} that ${question}.`.slice(0, 10_000),
    };
    const coding = { codeId: code.id, coderId: context.coderId, createdAt: context.now };
    const marked = passagesAt(state, places).map((passage) => updated('passage', passage, { codings: [...passage.codings, coding] }));
    return {
      change: [added('code', code), ...marked],
      sentence: `made the code ${short(code.name)} of an answer, on ${counted(marked.length, 'passage')}`,
    };
  };
}

/** Adds words to the comments of passages, as one step; where there is a comment already, as a further line. */
export function commentPassages(places: readonly PassageAt[], comment: string): Command {
  return (state) => {
    const text = comment.trim();
    if (!text) throw new CommandError('A comment needs words.');
    const marked = passagesAt(state, places).map((passage) =>
      updated('passage', passage, { comment: passage.comment ? `${passage.comment}\n${text}` : text }),
    );
    return marked.length === 0 ? null : { change: marked, sentence: `commented on ${counted(marked.length, 'passage')}` };
  };
}

/** Rates every coding with a code on some passages, or takes the ratings away, as one step. @param rating from 1 to what the study rates to, or null */
export function ratePassages(places: readonly PassageAt[], codeId: Id, rating: number | null): Command {
  return (state) => {
    const most = state.study.ratings;
    if (!most) throw new CommandError('This study does not use ratings.');
    if (rating !== null && !(Number.isInteger(rating) && rating >= 1 && rating <= most))
      throw new CommandError(`A rating is a whole number from 1 to ${most}.`);
    const marked = passagesAt(state, places).flatMap((passage) => {
      if (!passage.codings.some((coding) => coding.codeId === codeId && (coding.rating ?? null) !== rating)) return [];
      const codings = passage.codings.map(({ rating: before, ...coding }) => {
        const next = coding.codeId === codeId ? rating : (before ?? null);
        return next === null ? coding : { ...coding, rating: next };
      });
      return [updated('passage', passage, { codings })];
    });
    const name = short(found(state.tables.code[codeId], 'code').name);
    if (marked.length === 0) return null;
    return {
      change: marked,
      sentence: `${rating === null ? 'took the rating off' : `rated ${rating} of ${most}`} ${name} on ${counted(marked.length, 'passage')}`,
    };
  };
}

/** Passages by document, without taking the others of a document apart. @throws CommandError if one is gone */
function passagesAt(state: StudyState, places: readonly PassageAt[]): Passage[] {
  return [...passageIdsByDocument(places)].flatMap(([documentId, ids]) => {
    const columns = found(state.passages[documentId], 'passage');
    const rows = new Set<number>();
    // a walk over the ids beats looking each up
    for (let row = 0; row < columns.starts.length; row++) if (ids.has(idOfRow(columns, row))) rows.add(row);
    if (rows.size < ids.size) throw new CommandError('A passage is no longer there. Ask again.');
    return passagesInRows(columns, (row) => rows.has(row));
  });
}
