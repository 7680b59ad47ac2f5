import { joinPath } from '../../codebook/exchange/code-paths';
import { hexOf } from '../../model/colour-hex';
import { codeColour } from '../../model/palette';
import type { CodebookRow } from '../../codebook/codebook-rows';
import { writeCsv } from './write-csv';

/**
 * The codebook as a table, headings first, one row a code in the order of the tree; `level` counts from 1,
 * `passages` counts the code's own, `passages with codes under it` each passage once.
 */
export function codebookTable(rows: readonly CodebookRow[]): (string | number)[][] {
  return [
    [
      'code',
      'parents',
      'level',
      'mark',
      'definition',
      'use when',
      'do not use when',
      'example',
      'notes',
      'example passages',
      'passages',
      'passages with codes under it',
      'documents',
      'in use',
      'colour',
    ],
    ...rows.map(({ code, parents, level, passages, passagesWithUnder, documents, examples }) => [
      code.name,
      joinPath(parents),
      level,
      code.mark,
      code.definition,
      code.useWhen,
      code.doNotUseWhen,
      code.example,
      code.notes ?? '',
      examples.join('\n'),
      passages,
      passagesWithUnder,
      documents,
      code.retired ? 'retired' : 'yes',
      hexOf(codeColour(code.colour, 'light')),
    ]),
  ];
}

/** {@link codebookTable} as CSV. */
export const codebookCsv = (rows: readonly CodebookRow[]): string => writeCsv(codebookTable(rows));
