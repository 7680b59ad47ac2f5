import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import { passageOf } from '@core/passages/columns';
import type { Hit } from '@core/queries/evaluate';
import { selectData } from '../../state/study.selectors';
import { Swatch } from '../../ui/swatch/swatch';

/** Columns there is room for beside each other; the codes carried most. */
const MOST_COLUMNS = 40;

/** An answer as a table: a row a passage, a column a code, the codes carried most in front. */
@Component({
  selector: 'fl-answer-table',
  imports: [ScrollingModule, Swatch],
  template: `
    <div class="wide" role="table" aria-label="Passages and their codes" [attr.aria-rowcount]="hits().length + 1">
      <div class="row head" role="row" [style.grid-template-columns]="template()">
        <span role="columnheader">Passage</span>
        @for (column of columns(); track column.code.id) {
          <span role="columnheader" class="code" [title]="column.code.name + ': ' + column.count">
            <fl-swatch [mark]="column.code.mark" [colour]="column.code.colour" /><span class="number">{{ column.count }}</span>
          </span>
        }
      </div>
      <cdk-virtual-scroll-viewport itemSize="28" tabindex="-1">
        <div
          *cdkVirtualFor="let hit of hits(); let at = index"
          class="row"
          role="row"
          [attr.aria-rowindex]="at + 2"
          [style.grid-template-columns]="template()"
        >
          <button role="rowheader" class="where" (click)="read.emit(hit)" [title]="titleOf(hit) + ': read in place'">
            {{ titleOf(hit) }}
          </button>
          @for (column of columns(); track column.code.id) {
            <span role="cell" class="code" [class.none]="!carries(hit, column.code)">{{ carries(hit, column.code) ? '●' : '–' }}</span>
          }
        </div>
      </cdk-virtual-scroll-viewport>
    </div>
    @if (left() > 0) {
      <p class="second">{{ left() }} more codes are carried less, and not shown. As a table to take out all of them are there.</p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      height: 100%;
      padding: 6px 20px;
    }
    .wide {
      flex: 1;
      min-height: 260px;
      display: flex;
      flex-direction: column;
      overflow-x: auto;
    }
    cdk-virtual-scroll-viewport {
      flex: 1;
      min-width: max-content;
    }
    .row {
      display: grid;
      height: 28px;
      align-items: center;
      border-bottom: 1px solid var(--rule);
      min-width: max-content;
      font-size: 12.5px;
    }
    .head {
      height: 40px;
      color: var(--ink-second);
    }
    .code {
      text-align: center;
      display: grid;
      justify-items: center;
    }
    .none {
      color: var(--ink-second);
    }
    .where {
      text-align: left;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
      min-height: 24px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AnswerTable {
  readonly hits = input.required<readonly Hit[]>();
  readonly read = output<Hit>();
  private readonly data = inject(Store).selectSignal(selectData);
  /** The codes of each passage. */
  private readonly codes = computed(() => {
    const data = this.data();
    return new Map(
      this.hits().map((hit) => {
        const passage = passageOf(data?.passages[hit.documentId], hit.passageId);
        return [hit.passageId, new Set(passage?.codings.map((coding) => coding.codeId))] as const;
      }),
    );
  });
  private readonly all = computed(() => {
    const counts = new Map<Id, number>();
    for (const ids of this.codes().values()) for (const id of ids) counts.set(id, (counts.get(id) ?? 0) + 1);
    const table = this.data()?.tables.code ?? {};
    return [...counts]
      .flatMap(([id, count]) => (table[id] ? [{ code: table[id], count }] : []))
      .sort((a, b) => b.count - a.count || a.code.name.localeCompare(b.code.name));
  });
  protected readonly columns = computed(() => this.all().slice(0, MOST_COLUMNS));
  protected readonly left = computed(() => this.all().length - this.columns().length);
  protected readonly template = computed(() => `260px repeat(${this.columns().length}, 40px)`);

  protected carries(hit: Hit, { id }: Code): boolean {
    return this.codes().get(hit.passageId)?.has(id) ?? false;
  }

  protected titleOf({ documentId }: Hit): string {
    return this.data()?.tables.document[documentId]?.title ?? '';
  }
}
