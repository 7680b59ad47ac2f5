import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output } from '@angular/core';
import { Walk } from './walk';

/** A line between two that go together, as it is drawn. */
export interface DrawnLine {
  readonly key: string;
  readonly d: string;
  readonly width: string;
  readonly said: string;
}

/** How broad a line is, no thinner than can be seen. */
export const breadthOf = (value: number, strongest: number, broadest: number): string =>
  Math.max(1, (value / strongest) * broadest).toFixed(1);

/** Lines between what goes together, each to be opened. Arrow keys go from the strongest down. */
@Component({
  // eslint-disable-next-line @angular-eslint/component-selector -- in a drawing only elements of SVG are drawn
  selector: '[flDrawnLinks]',
  template: `
    @for (line of lines(); track line.key; let at = $index) {
      <!-- below what is seen, so that a thin line is as easy to hit as a broad one -->
      <svg:path class="reach" [attr.d]="line.d" (click)="walk.pick(at)" data-apart>
        <svg:title>{{ line.said }}</svg:title>
      </svg:path>
    }
    @for (line of lines(); track line.key; let at = $index) {
      <svg:g
        class="link"
        role="button"
        [class.open]="open() === line.key"
        [attr.tabindex]="at === walk.here() ? 0 : -1"
        [attr.aria-label]="line.said"
        [attr.aria-pressed]="open() === line.key"
        (click)="walk.pick(at)"
        (keydown)="walk.onKey($event, at)"
      >
        <svg:title>{{ line.said }}</svg:title>
        <svg:path class="line" [attr.d]="line.d" [attr.stroke-width]="line.width" />
      </svg:g>
    }
  `,
  styles: `
    .link {
      cursor: pointer;
      outline: none;
      fill: none;
    }
    .line {
      stroke: var(--accent);
      stroke-opacity: 0.34;
    }
    .link:hover .line {
      stroke-opacity: 0.8;
    }
    .link:focus-visible .line,
    .link.open .line {
      stroke: var(--here);
      stroke-opacity: 0.9;
    }
    .reach {
      cursor: pointer;
      fill: none;
      stroke: transparent;
      stroke-width: 12;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DrawnLinks {
  /** From the strongest down. */
  readonly lines = input.required<readonly DrawnLine[]>();
  /** The key of the line that is open. */
  readonly open = input<string | null>(null);
  /** Place of the line that was picked. */
  readonly picked = output<number>();
  private readonly host = inject<ElementRef<SVGGElement>>(ElementRef).nativeElement;
  protected readonly walk = new Walk(this.lines, this.host, '.link', (_, at) => this.picked.emit(at));
}
