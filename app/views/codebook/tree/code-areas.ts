import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import type { TreeRow } from '@core/codebook/tree';
import type { Id } from '@core/model/ids';
import { lineage } from '@core/passages/counting';
import { selectCodes } from '../../../state/study.selectors';
import { ThemeChoice } from '../../../state/theme-choice';
import { CodeCounts } from '../../../state/code-counts';
import { keepDrawn } from '../../../ui/charts/keep-drawn';

/** Codes as areas: each as large as the passages it carries itself, within its category. */
@Component({
  selector: 'fl-code-areas',
  template: `
    @if (areas().length === 0) {
      <p class="second">No code is carried by a passage where you are looking.</p>
    }
    <div class="frame" [hidden]="areas().length === 0">
      <canvas #canvas role="img" aria-label="Codes as areas; as bars the same numbers are in a list"></canvas>
    </div>
    <p class="second">Areas count the passages a code carries itself; the colours are those of the codes.</p>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: 1fr auto;
      min-height: 0;
      min-width: 0;
      padding: 14px 20px;
    }
    .frame {
      position: relative;
      min-height: 0;
    }
    p {
      padding-top: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeAreas {
  readonly rows = input.required<readonly TreeRow[]>();
  readonly picked = output<Id>();
  private readonly store = inject(Store);
  private readonly counts = inject(CodeCounts).scoped;
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly theme = inject(ThemeChoice);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  protected readonly areas = computed(() => {
    const codes = this.codes();
    return this.rows().flatMap(({ code }) => {
      const count = this.counts().own.get(code.id) ?? 0;
      const top = lineage(codes, code.id).at(-1)!;
      return count > 0 ? [{ id: code.id, name: code.name, category: codes[top]!.name, colour: code.colour, count }] : [];
    });
  });

  constructor() {
    keepDrawn(() => {
      const [dark, areas] = [this.theme.dark(), this.areas()];
      if (areas.length === 0) return null;
      return import('../../../ui/charts/area-chart').then(
        ({ drawAreas }) =>
          () =>
            drawAreas(this.canvas().nativeElement, getComputedStyle(this.host), areas, dark, (id) => this.picked.emit(id)),
      );
    });
  }
}
