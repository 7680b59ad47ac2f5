import { quoted } from '../../text/quoted';
import { unguarded } from '../../formats/csv/formula-guard';
import { splitPath } from './code-paths';
import type { Table } from '../../formats/table/table';
import { tidyLine } from '../../text/normalise';
import { faultsOf, tooMany, UNDESCRIBED, type ListedCode, type ListedCodebook } from './listed-code';

/** What a column of a codebook table can hold. */
export const CODE_COLUMNS = [
  'name',
  'path',
  'parent',
  'level',
  'definition',
  'use when',
  'do not use when',
  'example',
  'notes',
  'mark',
  'colour',
  'in use',
  'ignored',
] as const;
export type CodeColumn = (typeof CODE_COLUMNS)[number];

const WORDS: readonly (readonly [CodeColumn, RegExp])[] = [
  ['in use', /^in use$|retired/i],
  ['do not use when', /(do ?n.?t|not|never).*(use|when)|exclu|limits/i],
  ['use when', /use|inclu|apply|when/i],
  ['path', /parents|path|categories|hierarchy/i],
  ['parent', /parent|category|under|theme/i],
  ['level', /level|depth/i],
  ['definition', /defin|descri|meaning/i],
  ['example', /example|quote/i],
  ['notes', /note|remark|comment/i],
  ['mark', /mark|abbrev|short/i],
  ['colour', /colou?r/i],
  ['name', /code|name|label|title/i],
];

/** Guesses what each column holds by its heading, each thing once; the first column is the name if none says so. */
export function guessCodeColumns(header: readonly string[]): CodeColumn[] {
  const taken = new Set<CodeColumn>();
  const columns = header.map((heading): CodeColumn => {
    const found = WORDS.find(
      ([column, words]) => !taken.has(column) && words.test(heading) && !/passages|documents|count|words$/i.test(heading),
    )?.[0];
    if (!found) return 'ignored';
    taken.add(found);
    return found;
  });
  if (!taken.has('name') && columns.length > 0) columns[0] = 'name';
  return columns;
}

/** Whether the first row of a table names its columns: at least one word of it is one that names a part of a code. */
export const namesColumns = (header: readonly string[]): boolean =>
  header.some((heading) => heading.length <= 40 && WORDS.some(([, words]) => words.test(heading)));

/** What the columns of a table without headings most likely hold: names, and beside them definitions. */
export const columnsWithoutNames = (width: number): CodeColumn[] =>
  Array.from({ length: width }, (_, at) => (at === 0 ? 'name' : at === 1 ? 'definition' : 'ignored'));

/**
 * Reads codes from a table, one row a code. Where a code lies is said by a path of names (` / ` between them), by the
 * name of its parent, or by a level (1 at the top, each row under the last one a level higher).
 */
export function readCodeTable(table: Table, columns: readonly CodeColumn[]): ListedCodebook {
  const many = tooMany(table.rows.length);
  if (many) return { codes: [], sets: [], faults: [many], notes: [] };
  const at = (column: CodeColumn): number => columns.indexOf(column);
  // cells of a workbook are no formulas, and carry no apostrophe against that
  const isText = table.encoding !== null;
  const nameAt = at('name');
  if (nameAt < 0) return { codes: [], sets: [], faults: ['No column holds the names of the codes. Say which one does.'], notes: [] };
  const cell = (row: readonly string[], column: CodeColumn): string =>
    at(column) < 0 ? '' : isText ? unguarded((row[at(column)] ?? '').trim()) : (row[at(column)] ?? '').trim();
  const faults: string[] = [];
  const rows = table.rows.map((row, index) => ({ row, number: table.rowNumbers[index] ?? index + 1, name: tidyLine(cell(row, 'name')) }));
  const pathOf =
    at('path') >= 0 ? byPath() : at('parent') >= 0 ? byParent() : at('level') >= 0 ? byLevel() : (one: (typeof rows)[number]) => [one.name];

  function byPath(): (one: (typeof rows)[number]) => string[] {
    return (one) => [...splitPath(cell(one.row, 'path')).map(tidyLine), one.name];
  }

  function byLevel(): (one: (typeof rows)[number]) => string[] {
    const line: string[] = [];
    return (one) => {
      const level = Number(cell(one.row, 'level'));
      if (!Number.isInteger(level) || level < 1 || level > line.length + 1)
        faults.push(
          `Row ${one.number} has the level “${cell(one.row, 'level')}”; after the row before it, 1 to ${line.length + 1} would fit.`,
        );
      line.splice(Math.max(0, level - 1));
      line.push(one.name);
      return [...line];
    };
  }

  function byParent(): (one: (typeof rows)[number]) => string[] {
    const byName = new Map<string, (typeof rows)[number]>();
    for (const one of rows) {
      const first = byName.get(one.name.toLowerCase());
      if (first)
        faults.push(
          `${quoted(one.name)} is there twice, in row ${first.number} and row ${one.number}: it is not clear which of them a parent would mean.`,
        );
      else byName.set(one.name.toLowerCase(), one);
    }
    const told = new Set<string>();
    return (one) => {
      const path = [one.name];
      for (let now: (typeof rows)[number] | undefined = one; now;) {
        const parent: string = tidyLine(cell(now.row, 'parent'));
        if (!parent) break;
        const above: (typeof rows)[number] | undefined = byName.get(parent.toLowerCase());
        if (!above && !told.has(parent)) {
          told.add(parent);
          faults.push(`Row ${now.number} puts ${quoted(now.name)} under “${parent}”, which is not among the codes.`);
        }
        if (above && path.some((name) => name.toLowerCase() === above.name.toLowerCase())) {
          if (!told.has(above.name))
            faults.push(`${quoted(above.name)} lies under itself: ${[above.name, ...path].join(' under ')} (row ${above.number}).`);
          told.add(above.name);
          break;
        }
        if (above) path.unshift(above.name);
        now = above;
      }
      return path;
    };
  }

  const codes: ListedCode[] = rows
    .filter((one) => one.name !== '' || one.row.some((value) => value.trim() !== ''))
    .map((one) => {
      const mark = tidyLine(cell(one.row, 'mark'));
      const colour = cell(one.row, 'colour');
      return {
        path: pathOf(one),
        guid: null,
        definition: cell(one.row, 'definition'),
        useWhen: cell(one.row, 'use when'),
        doNotUseWhen: cell(one.row, 'do not use when'),
        example: cell(one.row, 'example'),
        notes: cell(one.row, 'notes'),
        mark: mark && [...mark].length <= 3 ? mark : null,
        retired: at('in use') < 0 || cell(one.row, 'in use') === '' ? null : /^(retired|no|false|0)$/i.test(cell(one.row, 'in use')),
        colour: /^#[0-9a-f]{6}$/i.test(colour) ? colour : null,
        row: one.number,
      };
    });
  const all = at('path') >= 0 ? withMissingCategories(codes) : codes;
  if (codes.length === 0) faults.push('There are no codes in the table.');
  return { codes: all, sets: [], faults: [...faults, ...(at('parent') >= 0 ? [] : faultsOf(all, 'row'))], notes: [] };
}

/** Categories that are only named in paths of others come in as codes of their own. */
function withMissingCategories(codes: readonly ListedCode[]): ListedCode[] {
  const key = (path: readonly string[]): string => path.join('\u0000').toLowerCase();
  const there = new Set(codes.map((code) => key(code.path)));
  return codes.flatMap((code) => {
    const missing: ListedCode[] = [];
    for (let depth = 1; depth < code.path.length; depth++) {
      const path = code.path.slice(0, depth);
      if (there.has(key(path))) continue;
      there.add(key(path));
      missing.push({ ...UNDESCRIBED, path, row: code.row });
    }
    return [...missing, code];
  });
}
