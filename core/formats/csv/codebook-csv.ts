import type { Id } from '../../model/ids';
import type { StudyState } from '../../model/study-state';
import { childrenOf } from '../../codebook/tree';
import { countCodes } from '../../passages/counting';
import { writeCsv } from './write-csv';

/**
 * The codebook as a table, one row a code in the order of the tree; `level` counts from 1, `passages`
 * counts the code's own, `passages with codes under it` each passage once.
 */
export function codebookCsv(state: StudyState): string {
  const codes = state.tables.code;
  const counts = countCodes(Object.values(state.passages), codes);
  const rows: (string | number)[][] = [
    [
      'code',
      'parents',
      'level',
      'mark',
      'definition',
      'use when',
      'do not use when',
      'example',
      'passages',
      'passages with codes under it',
    ],
  ];
  const list = (parentId: Id | null, parents: readonly string[]): void => {
    for (const code of childrenOf(codes, parentId)) {
      rows.push([
        code.name,
        parents.join(' / '),
        parents.length + 1,
        code.mark,
        code.definition,
        code.useWhen,
        code.doNotUseWhen,
        code.example,
        counts.own.get(code.id) ?? 0,
        counts.withUnder.get(code.id) ?? 0,
      ]);
      list(code.id, [...parents, code.name]);
    }
  };
  list(null, []);
  return writeCsv(rows);
}
