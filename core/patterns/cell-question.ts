import type { Attribute } from '../model/case';
import type { Id } from '../model/ids';
import type { HasWords, PassageCondition, PLACED } from '../model/passage-condition';
import type { GroupsAsked, Nested, RowsAsked } from '../model/pattern';
import type { Question } from '../model/query';
import type { StudyState } from '../model/study-state';
import { stepsIn } from './axis';

/**
 * A cell of a pattern as a question about passages, so that all can be done with what it counts. A passage of several
 * cases answers where each attribute is that of any of them; the cell counts it where all are those of one, and what is
 * of some case in no set counts as being in none.
 * @param row key of the row; null for all rows @param column key of the column; null for all
 * @returns null where no question asks for just that
 */
export function cellQuestion(
  { tables }: Pick<StudyState, 'tables'>,
  rows: RowsAsked,
  columns: GroupsAsked,
  { row, column }: { readonly row: string | null; readonly column: string | null },
): Question | null {
  const coder = 'by' in columns && columns.by === 'coder' ? column : null;
  const found = rowCondition(rows, row, coder);
  const group = column === null ? [] : groupConditions(tables.attribute, columns, column);
  return found && group && { all: [...found, ...group] };
}

/** How the words of a row of a table are looked for. @param forms forms of a word count as one */
export const searchOf = (typed: string, forms: boolean): HasWords['hasWords'] => ({
  typed,
  match: forms ? 'all forms' : 'whole words',
  ...{ capitals: false, accents: true, unit: 'words' },
});

/**
 * A cell of a table of words as a question about passages: it names the cell, to mark what is not found there.
 * @param column key of the group; null for all
 * @returns null where no question asks for just that
 */
export function wordCellQuestion(
  { tables }: Pick<StudyState, 'tables'>,
  hasWords: HasWords['hasWords'],
  groups: GroupsAsked,
  column: string | null,
): Question | null {
  // words are nobody's codings
  if ('by' in groups && groups.by === 'coder') return null;
  const group = column === null ? [] : groupConditions(tables.attribute, groups, column);
  return group && { all: [{ hasWords }, ...group] };
}

/** @param coder only codings of this one count; null for everybody's */
function rowCondition(rows: RowsAsked, row: string | null, coder: Id | null): PassageCondition[] | null {
  const carries = (codeIds: readonly Id[], setIds: readonly Id[], withUnder: boolean): PassageCondition[] => [
    {
      carries: 'any',
      codes: { codeIds: [...codeIds], setIds: [...setIds], withUnder },
      reach: 'passage',
      ...(coder && { given: { coderIds: [coder] } }),
    },
  ];
  switch (rows.of) {
    case 'codes':
      return carries(row === null ? (rows.codeIds ?? []) : [row], [], rows.withUnder);
    case 'top codes':
      return carries(row === null ? [] : [row], [], true);
    case 'code sets':
      // without any named, any code would be meant
      return row === null && !rows.setIds ? null : carries([], row === null ? rows.setIds! : [row], false);
    case 'queries':
      return row === null || coder ? null : [{ queryId: row }];
  }
}

function groupConditions(attributes: Readonly<Record<Id, Attribute>>, columns: GroupsAsked, key: string): PassageCondition[] | null {
  if ('nested' in columns) {
    if (key === 'all') return [];
    const steps = stepsIn(key);
    const levels = columns.nested.filter(({ attributeId }) => attributes[attributeId]);
    const each = levels.map((level, at) => stepConditions(attributes[level.attributeId]!, level, steps[at] ?? ''));
    return each.includes(null) ? null : each.flatMap((some) => some ?? []);
  }
  const liesIn = { documentIds: [] as Id[], folderIds: [] as Id[], setIds: [] as Id[] };
  const other = key === '';
  switch (columns.by) {
    case 'everything':
    case 'coder':
      return [];
    case 'document':
      return [{ liesIn: { ...liesIn, documentIds: [key] } }];
    case 'kind':
      return [{ kinds: [key as never] }];
    case 'set':
      return other ? noneIs('in a set') : [{ liesIn: { ...liesIn, setIds: [key] } }];
    case 'folder':
      return other ? noneIs('in a folder') : [{ liesIn: { ...liesIn, folderIds: [key], foldersAlone: true } }];
    case 'case':
      return other ? noneIs('of a case') : [{ ofCases: [key] }];
    case 'question':
      return other ? noneIs('in an answer') : [{ answers: [key] }];
    case 'speaker':
      return other ? noneIs('by a speaker') : [{ spokenBy: 'these', caseIds: [], names: [key.slice(1)] }];
    case 'month':
      return other ? [{ none: [{ dated: {} }] }] : [{ dated: { from: `${key}-01`, to: lastDayOf(key) } }];
  }
}

const noneIs = (placed: (typeof PLACED)[number]): PassageCondition[] => [{ none: [{ placed }] }];

/** The last day of a month written as 2025-02. */
function lastDayOf(month: string): string {
  const [year, nth] = month.split('-').map(Number) as [number, number];
  const day = new Date(0);
  // the day before the first of the next; a year under 100 is not one of the last century
  day.setUTCFullYear(year, nth, 0);
  return `${month}-${String(day.getUTCDate()).padStart(2, '0')}`;
}

/** A value, or a band: from its cut up to, and without, the next. */
function stepConditions({ id, type, of }: Attribute, { cuts = [] }: Nested, step: string): PassageCondition[] | null {
  const asks = (comparison: 'is' | 'is under' | 'is known' | 'is not known', values: (string | number | boolean)[]): PassageCondition => ({
    attributeId: id,
    comparison,
    values,
  });
  // of nobody nothing is known either, and the table tells the two apart
  if (step === '?') return [asks('is not known', []), ...(of === 'case' ? [{ placed: 'of a case' as const }] : [])];
  if (step === '') return noneIs('of a case');
  if (step.startsWith('#')) {
    const sorted = [...cuts].sort((a, b) => (a < b ? -1 : 1));
    const [from, to] = [sorted[Number(step.slice(1)) - 1], sorted[Number(step.slice(1))]];
    return [
      asks('is known', []),
      ...(from === undefined ? [] : [{ none: [asks('is under', [from])] }]),
      ...(to === undefined ? [] : [asks('is under', [to])]),
    ];
  }
  if (!step.startsWith('=')) return null;
  const written = step.slice(1);
  return [asks('is', [type === 'number' ? Number(written) : type === 'yes/no' ? written === 'true' : written])];
}
