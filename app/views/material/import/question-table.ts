import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { LineUp } from '@core/questions/line-up';
import { takenFor, type Decisions } from './question-decisions';

/** The questions of several files side by side: same, similar, missing, in another order. The researcher decides. */
@Component({
  selector: 'fl-question-table',
  template: `
    <h3>Questions across the files</h3>
    <table>
      <thead>
        <tr>
          <th scope="col">Question</th>
          @for (name of names(); track $index) {
            <th scope="col">
              {{ name }}
              @if (lineUp().reordered[$index]) {
                <span class="second">other order</span>
              }
            </th>
          }
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track row.row) {
          <tr>
            <th scope="row">{{ row.text }}</th>
            @for (cell of row.cells; track $index) {
              <td>
                @if (!cell) {
                  <span class="none" title="this file does not ask it">–</span>
                } @else if (cell.likeness === 'similar') {
                  <span class="wording">“{{ cell.wording }}”</span>
                  <button class="act" (click)="decided.emit({ key: cell.key, row: 'own' })">not the same</button>
                } @else {
                  <span class="second">{{ cell.likeness === 'same' ? 'same' : 'asked' }}</span>
                }
              </td>
            }
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host {
      display: block;
      overflow: auto;
      max-height: 260px;
      flex: none;
    }
    table {
      border-collapse: collapse;
      margin-top: 4px;
    }
    th,
    td {
      text-align: left;
      padding: 4px 14px 4px 0;
      border-bottom: 1px solid var(--rule);
      font-size: 12px;
      vertical-align: top;
      min-width: 110px;
      max-width: 240px;
    }
    thead th {
      color: var(--ink-second);
      font-weight: 500;
    }
    thead .second {
      display: block;
      color: var(--here-ink, var(--ink-second));
    }
    .wording {
      display: block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestionTable {
  readonly names = input.required<readonly string[]>();
  readonly keys = input.required<readonly number[]>();
  readonly lineUp = input.required<LineUp>();
  readonly decisions = input.required<Decisions>();
  readonly decided = output<{ readonly key: string; readonly row: 'own' }>();

  protected readonly rows = computed(() => {
    const { list, files } = takenFor(this.lineUp(), this.keys(), this.decisions());
    return list.map((text, row) => ({
      row,
      text,
      cells: files.map((file, at) => {
        const place = file.findIndex((one) => one.row === row);
        const found = file[place];
        return found ? { ...found, key: `${this.keys()[at]}:${place}` } : null;
      }),
    }));
  });
}
