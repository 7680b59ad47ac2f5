import { showValue } from '../attributes/values';
import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { caseFinderOf, type CaseFinder } from '../passages/case-finder';
import { passageOf } from '../passages/columns';
import { placeOf, wordsOfPlace } from '../text/citation';
import type { Hit } from './evaluate';

/** How an answer is listed. */
export const ANSWER_ORDERS = [
  'as in the documents',
  'the longest first',
  'by code',
  'by when it was coded',
  'by speaker',
  'by case',
] as const;
/** In one of these orders, or by an attribute of the case or document. */
export type AnswerOrder = (typeof ANSWER_ORDERS)[number] | { readonly attributeId: Id };

/** Characters up to which passages of a text are short, and middling; see {@link groupOf}. */
const LENGTHS = [100, 300];

const HEADINGS = ['document', 'case', 'speaker', 'position', 'text', 'codes', 'coders', 'comment'] as const;

/**
 * An answer as a table, one row a passage, headings first. Several codes, cases and coders of a passage are joined by "; ".
 * @param textOf the text of a document, null where it has none
 */
export function answerRows(
  state: StudyState,
  hits: readonly Hit[],
  finder: CaseFinder,
  textOf: (documentId: Id) => Text | null,
): string[][] {
  const rows: string[][] = [[...HEADINGS]];
  const { tables } = state;
  const distinct = (names: readonly string[]): string => [...new Set(names)].join('; ');
  for (const { documentId, passageId } of hits) {
    const document = tables.document[documentId];
    const passage = passageOf(state.passages[documentId], passageId);
    if (!document || !passage) continue;
    const text = textOf(documentId);
    const { speaker, position } = placeOf(document, text, passage);
    rows.push([
      document.title,
      distinct(finder.of(document, text, passage).map((id) => tables.case[id]?.name ?? '')),
      speaker ?? '',
      position,
      wordsOfPlace(text, passage),
      distinct(passage.codings.map(({ codeId }) => tables.code[codeId]?.name ?? '')),
      distinct(passage.codings.map(({ coderId }) => tables.coder[coderId]?.name ?? '')),
      passage.comment,
    ]);
  }
  return rows;
}

/**
 * Hits in another order; what is alike stays as it was.
 * @param textOf texts that are at hand; where one is missing its passages have no speaker
 */
export function inOrder(
  state: StudyState,
  hits: readonly Hit[],
  order: AnswerOrder,
  textOf: (documentId: Id) => Text | null,
): readonly Hit[] {
  if (order === 'as in the documents') return hits;
  if (order === 'the longest first') return hits.toSorted((a, b) => b.end - b.start - (a.end - a.start));
  const keys = new Map(hits.map((hit) => [hit, keyOf(state, hit, order, textOf)]));
  return hits.toSorted((a, b) => {
    const [one, other] = [keys.get(a)!, keys.get(b)!];
    if (typeof one === 'number') return one - (other as number);
    // those of none stand behind the others
    if ((one === '') !== (other === '')) return one === '' ? 1 : -1;
    return one.localeCompare(other as string, undefined, { numeric: true });
  });
}

/** What a passage stands under where an answer is grouped by its order; null where that makes no groups. */
export function groupOf(state: StudyState, hit: Hit, order: AnswerOrder, textOf: (documentId: Id) => Text | null): string | null {
  if (order === 'as in the documents') return null;
  if (order === 'the longest first') return lengthOf(state, hit);
  const key = keyOf(state, hit, order, textOf);
  if (order === 'by when it was coded') return new Date(Number(key)).toLocaleDateString(undefined, { dateStyle: 'long' });
  return String(key) || (typeof order === 'object' ? 'not known' : NONE[order]);
}

const NONE = { 'by code': 'no code', 'by speaker': 'nobody named', 'by case': 'of no case' };

/** How long a passage is, in words a reader knows; null where it is an area. */
function lengthOf(state: StudyState, { documentId, start, end }: Hit): string | null {
  const ground = state.tables.document[documentId]?.ground.of;
  if (ground === 'picture') return null;
  const [short, middling] = LENGTHS as [number, number];
  const [length, unit] = ground === 'time' ? [(end - start) / 1_000, 'seconds'] : [end - start, 'characters'];
  if (length > middling) return `over ${middling} ${unit}`;
  return length > short ? `${short} to ${middling} ${unit}` : `up to ${short} ${unit}`;
}

function keyOf(
  state: StudyState,
  hit: Hit,
  order: Exclude<AnswerOrder, 'as in the documents' | 'the longest first'>,
  textOf: (documentId: Id) => Text | null,
): string | number {
  const passage = passageOf(state.passages[hit.documentId], hit.passageId);
  const { codings = [] } = passage ?? {};
  if (order === 'by when it was coded') return Math.max(passage?.createdAt ?? 0, ...codings.map((coding) => coding.createdAt));
  const { tables } = state;
  if (order === 'by code') return named(codings.map(({ codeId }) => tables.code[codeId]?.name));
  const document = tables.document[hit.documentId];
  if (!passage || !document) return '';
  const text = textOf(hit.documentId);
  if (order === 'by speaker') return placeOf(document, text, passage).speaker ?? '';
  const cases = caseFinderOf(tables.case)
    .of(document, text, passage)
    .map((id) => tables.case[id]);
  if (order === 'by case') return named(cases.map((one) => one?.name));
  const { attributeId } = order;
  const of = tables.attribute[attributeId]?.of === 'document' ? [document] : cases;
  return named(of.map((one) => showValue(one?.values[attributeId])));
}

/** Distinct names in their order, as one; empty where there is none. */
const named = (names: readonly (string | undefined)[]): string =>
  [...new Set(names)]
    .filter((name) => name !== undefined && name !== '')
    .sort((a, b) => a!.localeCompare(b!, undefined, { numeric: true }))
    .join('; ');
