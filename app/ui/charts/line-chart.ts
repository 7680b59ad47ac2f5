import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output, viewChild } from '@angular/core';
import { ThemeChoice } from '../../state/theme-choice';
import { keepDrawn } from './keep-drawn';

/** A point of a line: what it is of, its value, and what is said of it. */
export interface LinePoint {
  readonly name: string;
  readonly value: number;
  readonly said: string;
}

/** A line over a row of things, in one hue; a click on a point opens what it is of. The numbers are in a table for those who hear the page. */
@Component({
  selector: 'fl-line-chart',
  template: `
    <div class="frame"><canvas #canvas aria-hidden="true"></canvas></div>
    <table class="visually-hidden">
      <caption>
        {{
          label()
        }}
      </caption>
      <tbody>
        @for (point of points(); track $index) {
          <tr>
            <th scope="row">{{ point.name }}</th>
            <td>{{ point.said }}</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host {
      display: block;
      position: relative;
    }
    .frame {
      position: relative;
      height: 130px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LineChart {
  readonly points = input.required<readonly LinePoint[]>();
  readonly label = input.required<string>();
  /** Place of the point that was clicked. */
  readonly picked = output<number>();

  private readonly theme = inject(ThemeChoice);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    keepDrawn(() => {
      const points = this.points();
      // the colours are read when it is drawn
      this.theme.dark();
      return import('./chart-library').then(
        ({ drawLine }) =>
          () =>
            drawLine(this.canvas().nativeElement, getComputedStyle(this.host), points, (at) => this.picked.emit(at)),
      );
    });
  }
}
