import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output, viewChild } from '@angular/core';
import { ThemeChoice } from '../../state/theme-choice';
import type { Area } from './area-chart';
import { keepDrawn } from './keep-drawn';

/** Parts of a whole, as areas within groups or as a pie; a click opens a part. The numbers are in a table for those who hear the page. */
@Component({
  selector: 'fl-share-chart',
  template: `
    <div class="frame"><canvas #canvas aria-hidden="true" data-picture></canvas></div>
    <table [attr.aria-label]="label()">
      <tbody>
        @for (part of parts(); track part.id) {
          <tr>
            <th scope="row">{{ part.name }}</th>
            <td>
              <button (click)="picked.emit(part.id)">{{ part.count.toLocaleString() }}</button>
            </td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host {
      display: grid;
      position: relative;
      min-height: 0;
      min-width: 0;
      padding: 6px 20px 16px;
    }
    .frame {
      position: relative;
      min-height: 0;
      min-width: 0;
    }
    /* over the chart for who comes to it by the keys; for the others the chart says it */
    table {
      position: absolute;
      top: 10px;
      right: 24px;
      max-height: calc(100% - 30px);
      overflow: auto;
      padding: 8px 14px;
      background: var(--surface);
      border: 1px solid var(--rule-strong);
      font-size: var(--size-small);
      display: block;
    }
    table:not(:focus-within) {
      width: 1px;
      height: 1px;
      padding: 0;
      border: 0;
      overflow: hidden;
      clip-path: inset(50%);
      white-space: nowrap;
    }
    th {
      padding-right: 18px;
      font-weight: 400;
      text-align: left;
    }
    td {
      text-align: right;
      font-variant-numeric: tabular-nums;
    }
    button {
      min-height: 24px;
      min-width: 34px;
      text-align: right;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShareChart {
  readonly form = input.required<'areas' | 'pie'>();
  readonly parts = input.required<readonly Area[]>();
  readonly label = input.required<string>();
  readonly picked = output<string>();
  private readonly theme = inject(ThemeChoice);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    keepDrawn(() => {
      const [parts, form, dark] = [this.parts(), this.form(), this.theme.dark()];
      const library =
        form === 'pie' ? import('./pie-chart').then(({ drawPie }) => drawPie) : import('./area-chart').then(({ drawAreas }) => drawAreas);
      return library.then(
        (draw) => () => draw(this.canvas().nativeElement, getComputedStyle(this.host), parts, dark, (id) => this.picked.emit(id)),
      );
    });
  }
}
