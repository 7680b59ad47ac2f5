import type { Study } from '../model/study';
import { tidyLine } from '../text/normalise';
import { added, updated } from '../change/change';
import { CommandError, short, type Command } from '../change/command';

/** Changes what the study says of itself. */
export function editStudy(fields: Partial<Pick<Study, 'title' | 'description' | 'caseWord' | 'language'>>): Command {
  return ({ study }) => {
    const next = { ...fields };
    if (next.title !== undefined) next.title = tidyLine(next.title);
    if (next.caseWord !== undefined) next.caseWord = tidyLine(next.caseWord);
    if (next.title === '' || next.caseWord === '') throw new CommandError('A study needs a title and a word for its cases.');
    if ((Object.keys(next) as (keyof typeof next)[]).every((key) => next[key] === study[key])) return null;
    return {
      change: [updated('study', study, next)],
      sentence:
        next.title !== undefined && next.title !== study.title
          ? `renamed the study to ${short(next.title)}`
          : 'changed the description of the study',
    };
  };
}

/** Has codings rated from 1 to a number, or not at all; ratings that were given stay. @param most from 2 to 10, or null */
export function useRatings(most: number | null): Command {
  return ({ study }) => {
    if (most !== null && !(Number.isInteger(most) && most >= 2 && most <= 10))
      throw new CommandError('Ratings go from 1 to a whole number between 2 and 10.');
    if ((study.ratings ?? null) === most) return null;
    const { ratings: _ratings, ...bare } = study;
    const after = most === null ? bare : { ...bare, ratings: most };
    return {
      change: [{ type: 'study', before: study, after }],
      sentence: most === null ? 'stopped rating codings' : `decided to rate codings from 1 to ${most}`,
    };
  };
}

/** Says under whose name new work is done on this machine; a name not yet known becomes a new coder. */
export function workAs(name: string): Command {
  return (state, context) => {
    const wanted = tidyLine(name);
    if (!wanted) throw new CommandError('A coder needs a name.');
    const known = Object.values(state.tables.coder).find((coder) => coder.name === wanted);
    if (known?.id === state.study.currentCoderId) return null;
    const coder = known ?? { id: context.newId(), name: wanted };
    return {
      change: [...(known ? [] : [added('coder', coder)]), updated('study', state.study, { currentCoderId: coder.id })],
      sentence: `handed over to ${short(wanted)}`,
    };
  };
}

/** Notes in the log that something was exported; nothing of the study changes. */
export function noteExport(what: string): Command {
  return () => ({ change: [], sentence: `exported ${short(what)}`, isNote: true });
}
