import { showValue } from '../attributes/values';
import type { DocumentKind } from '../model/document';
import type { Id } from '../model/ids';
import type { Carries, CodesAsked, Fact, PassageCondition, PLACED, SpokenBy, Standing, Within } from '../model/passage-condition';
import type { Question } from '../model/query';
import { nameOfRecord, type TableType } from '../model/records';
import type { Scope, ScopeGiven, ScopePart } from '../model/scope';
import type { StudyState } from '../model/study-state';
import type { WordSearch } from '../model/word-search';
import { counted } from '../text/counted';
import { quoted } from '../text/quoted';
import type { SingleChange } from './single-changes';

/** What a record is called, also one that is gone. */
export type NameOf = (of: TableType, id: Id) => string;

/** Names as they are in a study, and of what is gone as the question remembers it. */
export const namesIn =
  ({ tables }: Pick<StudyState, 'tables'>, gone: Question['gone']): NameOf =>
  (of, id) => {
    const record = tables[of][id];
    if (!record) return `${gone?.[id] ?? 'something'} (deleted)`;
    return of === 'question' ? (record as { readonly text: string }).text : nameOfRecord(record);
  };

export const KINDS_IN_WORDS: Readonly<Record<DocumentKind, string>> = {
  interview: 'interviews',
  'focus group': 'focus groups',
  'field note': 'field notes',
  'survey answers': 'survey answers',
  'public document': 'public documents',
  article: 'articles',
  recording: 'recordings',
  picture: 'pictures',
};

export const STANDINGS_IN_WORDS: Readonly<Record<Standing, string>> = {
  overlaps: 'overlap',
  'same place': 'are at the same place as',
  inside: 'lie inside',
  around: 'lie around',
  near: 'come near',
  before: 'come before',
  after: 'come after',
};

export const PLACED_IN_WORDS: Readonly<Record<(typeof PLACED)[number], string>> = {
  'in a folder': 'lie in some folder',
  'in a set': 'are in some set',
  'of a case': 'are of somebody',
  'in an answer': 'answer some question',
  'by a speaker': 'are said by somebody named',
};

/** Of which days a document is, in words: “dated from 2025-01-01 to 2025-01-31”. */
export function datedWords({ from, to }: Extract<PassageCondition, { dated: unknown }>['dated']): string {
  if (!from && !to) return 'with a date';
  return ['dated', from ? `from ${from}` : '', to ? `to ${to}` : ''].filter(Boolean).join(' ');
}

export const GROUNDS_IN_WORDS = { text: 'words', time: 'spans of a recording', picture: 'areas of a picture' } as const;

/** A question in words: two that ask otherwise read otherwise. */
export const questionWords = (question: Question, names: NameOf): string =>
  question.all.map((part) => conditionWords(part, names)).join(' and ') || 'anything';

/** A condition in words, to follow “passages that”. */
export function conditionWords(condition: PassageCondition, names: NameOf): string {
  const several = (some: readonly PassageCondition[], between: string): string =>
    some.map((one) => conditionWords(one, names)).join(between) || 'nothing';
  if ('all' in condition) return `(${several(condition.all, ' and ')})`;
  if ('any' in condition) return `(${several(condition.any, ' or ')})`;
  if ('none' in condition) return `not (${several(condition.none, ' or ')})`;
  if ('carries' in condition) return carriesWords(condition, names);
  if ('standing' in condition) return `${standsWords(condition)} any that ${conditionWords(condition.to, names)}`;
  if ('spokenBy' in condition) return spokenWords(condition, names);
  if ('answers' in condition) return `answer ${orOf(condition.answers.map((id) => quoted(names('question', id)))) || 'any question'}`;
  if ('comment' in condition)
    return {
      some: 'have a comment',
      none: 'have no comment',
      'open question': 'are an open question',
      holds: `have ${quoted(condition.words)} in their comment`,
    }[condition.comment];
  if ('hasWords' in condition) return `hold the words ${quoted(condition.hasWords.typed)}${searchWords(condition.hasWords)}`;
  if ('memo' in condition) return condition.memo ? 'have a memo' : 'have no memo';
  if ('attributeId' in condition) return factWords(condition, names);
  if ('ofCases' in condition) return `are of ${orOf(condition.ofCases.map((id) => names('case', id))) || 'anybody'}`;
  if ('queryId' in condition) return `answer the query ${quoted(names('query', condition.queryId))}`;
  if ('dated' in condition) return `lie in documents ${datedWords(condition.dated)}`;
  if ('placed' in condition) return PLACED_IN_WORDS[condition.placed];
  if ('kinds' in condition) return `lie in ${orOf(condition.kinds.map((kind) => KINDS_IN_WORDS[kind])) || 'any kind of document'}`;
  if ('grounds' in condition) return `are ${orOf(condition.grounds.map((ground) => GROUNDS_IN_WORDS[ground])) || 'words, spans or areas'}`;
  const { documentIds, folderIds, setIds, foldersAlone } = condition.liesIn;
  const places = [
    ...documentIds.map((id) => names('document', id)),
    ...folderIds.map((id) => `the folder ${names('folder', id)}${foldersAlone ? ' alone' : ''}`),
    ...setIds.map((id) => `the set ${names('set', id)}`),
  ];
  return `lie in ${orOf(places) || 'any document'}`;
}

/** How words are compared, where not as usual. */
export const searchWords = ({ match, capitals, accents }: WordSearch): string =>
  [
    match === 'whole words' ? '' : `as ${match}`.replace('as all forms', 'in all their forms'),
    capitals ? 'capitals as written' : '',
    accents ? '' : 'whatever their accents',
  ]
    .filter(Boolean)
    .map((one) => `, ${one}`)
    .join('');

/** “a”, “a or b”, “a, b or c”. */
const joinedBy =
  (word: 'and' | 'or') =>
  (some: readonly string[]): string =>
    some.length < 3 ? some.join(` ${word} `) : `${some.slice(0, -1).join(', ')} ${word} ${some.at(-1)}`;
const orOf = joinedBy('or');
const andOf = joinedBy('and');

/** How they stand, to go before what they stand to: “come within 2 turns of”, “come at most 2 turns before”. */
export function standsWords({ standing, within }: Extract<PassageCondition, { standing: Standing }>): string {
  if (!within) return STANDINGS_IN_WORDS[standing];
  return standing === 'near' ? `come ${withinWords(within)} of` : `come at most ${counted(within.count, within.unit)} ${standing}`;
}

export const withinWords = ({ count, unit }: Within): string => `within ${counted(count, unit)}`;

/** The codes and sets named, in words; empty where none is. */
export const codesWords = ({ codeIds, setIds }: CodesAsked, names: NameOf): string =>
  [...codeIds.map((id) => names('code', id)), ...setIds.map((id) => `one of the set ${names('codeSet', id)}`)].join(', ');

function carriesWords({ carries, number = 1, codes, reach, given }: Carries, names: NameOf): string {
  const named = codesWords(codes, names);
  const single = codes.codeIds.length + codes.setIds.length === 1;
  const lead = {
    any: single ? '' : 'any of ',
    all: single ? '' : 'all of ',
    none: single ? '' : 'none of ',
    'at least': `at least ${number} of `,
  }[carries];
  const what = named
    ? `carry ${carries === 'none' && single ? 'not ' : ''}${lead}${named}`
    : carries === 'none'
      ? 'carry no code'
      : 'carry a code';
  return [
    what,
    named && codes.withUnder ? 'with what is under it' : '',
    given?.coderIds ? `given by ${orOf(given.coderIds.map((id) => names('coder', id)))}` : '',
    given?.from || given?.to ? `given ${[given.from && `from ${given.from}`, given.to && `to ${given.to}`].filter(Boolean).join(' ')}` : '',
    given?.ratedFrom !== undefined || given?.ratedTo !== undefined ? `rated ${given.ratedFrom ?? 1} to ${given.ratedTo ?? 10}` : '',
    given?.swept === undefined ? '' : given.swept ? 'swept and not looked at yet' : 'not by a sweep that waits to be looked at',
    reach === 'overlap' ? 'on the passage or one overlapping it' : '',
  ]
    .filter(Boolean)
    .join(' ');
}

function spokenWords({ spokenBy, caseIds, names: speakers }: SpokenBy, names: NameOf): string {
  if (spokenBy === 'interviewers') return 'are spoken by interviewers';
  if (spokenBy === 'others') return 'are not spoken by interviewers';
  return `are spoken by ${orOf([...caseIds.map((id) => names('case', id)), ...speakers]) || 'nobody'}`;
}

function factWords({ attributeId, comparison, values }: Fact, names: NameOf): string {
  const shown = comparison.endsWith('known') ? '' : ` ${orOf(values.map(showValue)) || 'nothing'}`;
  return `have ${quoted(names('attribute', attributeId))} that ${comparison}${shown}`;
}

/** A single change of a question in words, as a step that is offered. */
export function changeWords(change: SingleChange | null, names: NameOf): string {
  if (!change) return 'looking at the whole study';
  switch (change.do) {
    case 'without':
      return `without asking that they ${conditionWords(change.at, names)}`;
    case 'without code':
      return 'carries' in change.at && change.at.carries === 'none'
        ? `without leaving out ${quoted(names('code', change.codeId))}`
        : `without asking for ${quoted(names('code', change.codeId))}`;
    case 'any of':
      return 'with any of the codes in place of all';
    case 'with under':
      return 'with what is under the codes';
    case 'overlapping':
      return 'counting codes of overlapping passages too';
    case 'at any distance':
      return 'at any distance';
    case 'at least':
      return `with at least ${change.number} of the codes`;
    case 'further':
      return 'within' in change.at && change.at.within ? withinWords({ ...change.at.within, count: change.number }) : 'further away';
  }
}

/** A part of a scope in as few words as say it: “interviews”, “home is Saltpans”, “without the interviewer”. */
export function scopePartWords(part: ScopePart, names: NameOf): string {
  if ('kinds' in part) return andOf(part.kinds.map((kind) => KINDS_IN_WORDS[kind])) || 'all documents';
  if ('ofCases' in part) return andOf(part.ofCases.map((id) => names('case', id))) || 'everybody';
  if ('attributeId' in part) {
    const { attributeId, comparison, values } = part;
    const shown = comparison.endsWith('known') ? '' : ` ${orOf(values.map(showValue)) || '…'}`;
    return attributeId ? `${names('attribute', attributeId)} ${comparison === 'is one of' ? 'is' : comparison}${shown}` : 'an attribute';
  }
  if ('spokenBy' in part)
    return part.spokenBy === 'others'
      ? 'without the interviewer'
      : part.spokenBy === 'interviewers'
        ? 'the interviewer alone'
        : `said by ${orOf([...part.caseIds.map((id) => names('case', id)), ...part.names]) || '…'}`;
  if ('dated' in part) return datedWords(part.dated);
  if ('placed' in part) return PLACED_IN_WORDS[part.placed].replace(/^(lie|are) /, '');
  if ('answers' in part) return `answers to ${orOf(part.answers.map((id) => quoted(names('question', id)))) || '…'}`;
  const { documentIds, folderIds, setIds, foldersAlone } = part.liesIn;
  const places = [
    ...documentIds.map((id) => names('document', id)),
    ...folderIds.map((id) => names('folder', id) + (foldersAlone ? ' alone' : '')),
    ...setIds.map((id) => `the set ${names('set', id)}`),
  ];
  return places.length > 0 ? `in ${orOf(places)}` : 'in any document';
}

/** Whose codings, and of when, in as few words as say it. */
export function scopeGivenWords({ coderIds, from, to }: ScopeGiven, names: NameOf): string {
  const who = coderIds ? `coded by ${andOf(coderIds.map((id) => names('coder', id)))}` : 'coded';
  return [who, from ? `from ${from}` : '', to ? `to ${to}` : ''].filter(Boolean).join(' ');
}

/** A scope in a sentence. */
export const scopeWords = ({ parts, given }: Scope, names: NameOf): string =>
  [...parts.map((part) => scopePartWords(part, names)), ...(given ? [scopeGivenWords(given, names)] : [])].join(' · ') || 'the whole study';
