import { Counted } from '../../../ui/counted/counted';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import { ENCODINGS } from '@core/formats/plain-text/encoding';
import { COLUMN_ROLES, type Column, type ColumnRole } from '@core/formats/table/guess-roles';
import { showValue } from '@core/attributes/values';
import { ATTRIBUTE_TYPES, type Attribute } from '@core/model/case';
import type { RowsBecome } from '@core/material/plan-table';
import type { Id } from '@core/model/ids';
import { selectStudy } from '../../../state/study.selectors';
import type { TablePlanSummary } from '@core/filing/filing';
import { EncodingSamples } from './encoding-samples';
import type { ImportItem } from './import-item';

/** What a table becomes: a role for each column, and what bringing it in would change. */
@Component({
  imports: [Counted, EncodingSamples],
  selector: 'fl-table-settings',
  templateUrl: './table-settings.html',
  styleUrl: './table-settings.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TableSettings {
  readonly item = input.required<ImportItem>();
  readonly plan = input.required<TablePlanSummary | { readonly trouble: string } | null>();
  readonly changed = output<Partial<ImportItem>>();
  readonly readAgain = output<ImportItem['options']>();
  /** Other sheets of the workbook that are not among the files yet. */
  readonly sheetsLeft = input(0);
  /** They are wanted too. */
  readonly sheets = output();

  protected readonly study = inject(Store).selectSignal(selectStudy);
  protected readonly encodings = ENCODINGS;
  protected readonly roles = COLUMN_ROLES;
  protected readonly types = ATTRIBUTE_TYPES;
  protected readonly delimiters = [
    { sign: ',', name: 'comma' },
    { sign: ';', name: 'semicolon' },
    { sign: '\t', name: 'tab' },
    { sign: '|', name: 'bar' },
  ];
  protected readonly becomes: readonly RowsBecome[] = ['a document each', 'a document for each question', 'cases only'];
  protected readonly show = showValue;

  protected readonly trouble = computed(() => {
    const plan = this.plan();
    return plan && 'trouble' in plan ? plan.trouble : '';
  });
  protected readonly ready = computed(() => {
    const plan = this.plan();
    return plan && !('trouble' in plan) ? plan : null;
  });
  /** Differences by case, so that each is taken over or not as a whole. */
  protected readonly byCase = computed(() => {
    const groups = Map.groupBy(this.ready()?.differences ?? [], (one) => one.caseId);
    return [...groups].map(([caseId, differences]) => ({ caseId, name: differences[0]!.caseName, differences }));
  });

  protected setRole(at: number, role: string): void {
    const columns = this.item().columns.map((column, row): Column => {
      if (row === at) return { ...column, role: role as ColumnRole, because: 'you said so' };
      // a table has one title, one identifier, one date and one folder
      const single = role === 'title' || role === 'identifier' || role === 'date' || role === 'folder';
      return single && column.role === role ? { ...column, role: 'attribute', because: 'another column took its place' } : column;
    });
    this.changed.emit({ columns });
  }

  protected setType(at: number, type: string): void {
    const columns = this.item().columns.map((column, row) =>
      row === at ? { ...column, type: type as Attribute['type'], because: 'you said so' } : column,
    );
    this.changed.emit({ columns });
  }

  /** The known question that a column is taken for though it is worded otherwise, if there is one. */
  protected similar(at: number): string | undefined {
    return this.ready()?.similar.find((one) => one.column === at)?.known;
  }

  protected setOwn(at: number, own: boolean): void {
    const columns = this.item().columns.map((column, row) => (row === at ? { ...column, ownQuestion: own } : column));
    this.changed.emit({ columns });
  }

  /** @param raw signs with commas between them */
  protected setMissing(at: number, raw: string): void {
    const signs = raw
      .split(',')
      .map((sign) => sign.trim().slice(0, 40))
      .filter(Boolean);
    const columns = this.item().columns.map((column, row) => (row === at ? { ...column, missing: signs } : column));
    this.changed.emit({ columns });
  }

  protected setBecomes(value: string): void {
    const rowsBecome = value as RowsBecome;
    const { table } = this.item();
    const columns =
      (rowsBecome === 'cases only') === (this.item().rowsBecome === 'cases only')
        ? this.item().columns
        : rowsBecome === 'cases only'
          ? table!.asCases
          : table!.asDocuments;
    this.changed.emit({ rowsBecome, columns });
  }

  protected takeOver(caseId: Id, take: boolean): void {
    const keep = new Set(this.item().keep);
    if (take) keep.delete(caseId);
    else keep.add(caseId);
    this.changed.emit({ keep });
  }
}
