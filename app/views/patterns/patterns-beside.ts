import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { naturalOrder } from '@core/text/natural-order';
import { selectPatterns } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { ViewTabs } from '../../ui/view-tabs';
import { KeptHalf } from './kept-half';
import { PATTERNS } from './pattern-head';

/** Two kept patterns beside each other, each in its half. */
@Component({
  selector: 'fl-patterns-beside',
  imports: [KeptHalf, SentencePart, ViewTabs],
  template: `
    <div class="place">
      <header class="place-head">
        <h1>Side by side</h1>
        <fl-view-tabs label="Parts of the patterns" [views]="views" here="beside" />
      </header>
      <p class="sentence">
        @if (one(); as one) {
          <fl-part [words]="one.name" [choices]="choices()" (chosen)="show($event, other()!.id)" /> beside
          <fl-part [words]="other()!.name" [choices]="choices()" (chosen)="show(one.id, $event)" />
        }
      </p>
      @if (one(); as one) {
        <div class="halves">
          <fl-kept-half [kept]="one" />
          <fl-kept-half [kept]="other()!" />
        </div>
      } @else {
        <p class="empty"><strong>Nothing kept yet</strong>Keep patterns by name, and two of them can be seen here beside each other.</p>
      }
    </div>
  `,
  styles: `
    :host {
      display: contents;
    }
    .sentence {
      padding: 8px 20px 0;
      color: var(--ink-second);
    }
    .place {
      grid-template-rows: auto auto minmax(0, 1fr);
    }
    .halves {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      grid-template-rows: minmax(0, 1fr);
      min-height: 0;
    }
    fl-kept-half + fl-kept-half {
      border-left: 1px solid var(--rule-strong);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PatternsBeside {
  /** From the address: ids of kept patterns. */
  readonly left = input<string>();
  readonly right = input<string>();
  private readonly ways = inject(Ways);
  private readonly table = inject(Store).selectSignal(selectPatterns);
  protected readonly views = PATTERNS;
  private readonly kept = computed(() => naturalOrder(Object.values(this.table()), ({ name }) => name));
  protected readonly choices = computed((): Choice<Id>[] => this.kept().map(({ id, name }) => ({ value: id, name })));
  protected readonly one = computed(() => this.table()[this.left() ?? ''] ?? this.kept()[0]);
  /** One that is gone makes room for another. */
  protected readonly other = computed(
    () => this.table()[this.right() ?? ''] ?? this.kept().find(({ id }) => id !== this.one()?.id) ?? this.kept()[0],
  );

  protected show(left: Id, right: Id): void {
    this.ways.go(['patterns'], { queryParams: { view: 'beside', left, right } });
  }
}
