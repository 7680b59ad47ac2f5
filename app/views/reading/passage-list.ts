import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import { hasText, lengthOf, type Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import { coveredOf, shareCovered } from '@core/passages/covered';
import { placeOf } from '@core/text/citation';
import { clock } from '@core/text/clock';
import { selectCodes, selectPassages } from '../../state/study.selectors';
import { Swatch } from '../../ui/swatch/swatch';

/** The passages of a document that has no text, one under the other: where each stands, what it is coded with and its comment. */
@Component({
  selector: 'fl-passage-list',
  imports: [Swatch],
  template: `
    <p class="second">{{ about() }}</p>
    @if (passages().length === 0) {
      <p class="second">{{ document().ground.of === 'time' ? 'No span of it is marked yet.' : 'No area of it is marked yet.' }}</p>
    } @else {
      <ol>
        @for (row of rows(); track row.passage.id) {
          <li [class.on]="row.passage.id === chosenId()">
            <button class="act" (click)="chosen.emit(row.passage.id)" [attr.aria-pressed]="row.passage.id === chosenId()">
              {{ row.where }}
            </button>
            <span>
              @for (code of row.codes; track code.id) {
                <fl-swatch [mark]="code.mark" [colour]="code.colour" /> {{ code.name }}
              } @empty {
                no code yet
              }
              @if (row.passage.comment) {
                <em>{{ row.passage.comment }}</em>
              }
            </span>
          </li>
        }
      </ol>
    }
  `,
  styles: `
    :host {
      display: block;
      overflow: auto;
      padding: 16px 24px;
      min-height: 0;
    }
    ol {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: grid;
      grid-template-columns: minmax(120px, max-content) 1fr;
      gap: 16px;
      align-items: baseline;
      padding: 6px 0;
      border-bottom: 1px solid var(--rule);
    }
    li.on {
      background: var(--accent-ground);
    }
    button {
      font-variant-numeric: tabular-nums;
      text-align: start;
    }
    em {
      display: block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PassageList {
  readonly document = input.required<Document>();
  /** Of the document, in reading order. */
  readonly passages = input.required<readonly Passage[]>();
  readonly chosenId = input.required<Id | null>();
  readonly chosen = output<Id>();

  private readonly store = inject(Store);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly columns = this.store.selectSignal(selectPassages);

  protected readonly rows = computed(() =>
    this.passages().map((passage) => ({
      passage,
      where: placeOf(this.document(), null, passage).position,
      codes: [...new Set(passage.codings.map((coding) => coding.codeId))].flatMap((id) => this.codes()[id] ?? []),
    })),
  );

  /** What it is, how large, and how much of it is coded. */
  protected readonly about = computed(() => {
    const document = this.document();
    if (hasText(document)) return '';
    const { ground } = document;
    const size =
      ground.of === 'picture' ? `A picture of ${ground.width} × ${ground.height} pixels` : `A recording of ${clock(lengthOf(document))}`;
    const share = shareCovered(coveredOf(document, this.columns()[document.id]));
    return `${size}, ${share > 0 && share < 0.005 ? '< 1' : Math.round(100 * share)} % of it coded.`;
  });
}
