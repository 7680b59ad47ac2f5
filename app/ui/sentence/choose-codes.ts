import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import { findCodes } from '@core/codebook/find-codes';
import type { Id } from '@core/model/ids';
import { CodeCounts, howOften } from '../../state/code-counts';
import { selectCodes } from '../../state/study.selectors';
import { ChooseSeveral, type Offer } from './choose-several';

/** Ticks codes for a part of a question: found by name, category and definition, each with how often it is used in scope. */
@Component({
  selector: 'fl-choose-codes',
  imports: [ChooseSeveral],
  template: `
    <fl-choose-several
      named="Choose codes"
      label="Find a code"
      none="No code fits."
      [finds]="finds()"
      [chosen]="chosen()"
      (changed)="changed.emit($event)"
      (closed)="closed.emit()"
    />
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChooseCodes {
  readonly chosen = input.required<readonly Id[]>();
  readonly changed = output<readonly Id[]>();
  readonly closed = output<void>();
  private readonly codes = inject(Store).selectSignal(selectCodes);
  private readonly counts = inject(CodeCounts).scoped;
  protected readonly finds = computed(() => {
    const [codes, counts] = [this.codes(), this.counts()];
    return (typed: string, first: readonly string[]): Offer[] =>
      findCodes(codes, typed, first, 200).map(({ code, categories }) => ({
        id: code.id,
        name: code.name,
        note: categories[0] ?? '',
        count: howOften(counts, 'withUnder', code.id),
        swatch: code,
      }));
  });
}
