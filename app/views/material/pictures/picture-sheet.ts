import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Document } from '@core/model/document';
import { unpackPassages } from '@core/passages/columns';
import { coveredOf, shareCovered } from '@core/passages/covered';
import { naturalOrder } from '@core/text/natural-order';
import { selectScopedPassages, selectCodes, selectScopedDocuments, selectStudy } from '../../../state/study.selectors';
import { Counted } from '../../../ui/counted/counted';
import { CutOut } from '../../../ui/pictures/cut-out';
import { Swatch } from '../../../ui/swatch/swatch';

/** Pictures that are drawn at first, and how many more at a time. */
const FIRST = 24;

/** The pictures in scope at a glance, each with what is coded in it. */
@Component({
  selector: 'fl-picture-sheet',
  imports: [Counted, CutOut, RouterLink, Swatch],
  template: `
    @if (rows().length === 0) {
      <div class="empty">
        <strong>No pictures here yet</strong>
        <p>Photographs, drawings, plans and pages are brought in like texts, and their areas coded with the same codes.</p>
      </div>
    } @else {
      <ul>
        @for (row of rows(); track row.document.id) {
          <li>
            <a [routerLink]="['/study', study()!.id, 'reading', row.document.id]">
              <fl-cut-out [document]="row.document" [areas]="row.areas" [whole]="true" [label]="row.document.title" />
              <strong>{{ row.document.title }}</strong>
            </a>
            <p class="second">{{ row.areas.length | counted: 'area' }}, {{ row.share }} coded</p>
            <p class="codes">
              @for (code of row.codes; track code.id) {
                <span><fl-swatch [mark]="code.mark" [colour]="code.colour" />{{ code.name }}</span>
              }
            </p>
          </li>
        }
      </ul>
      @if (more() > 0) {
        <p>
          <button class="act" (click)="shown.set(shown() + 24)">Show {{ more() | counted: 'more picture' }}</button>
        </p>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      overflow: auto;
      padding: 18px 20px;
      min-height: 0;
    }
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
      gap: 22px 20px;
      list-style: none;
      margin: 0;
      padding: 0;
    }
    a {
      display: grid;
      gap: 6px;
      color: var(--ink);
      text-decoration: none;
    }
    p {
      margin: 2px 0 0;
    }
    .codes {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 10px;
      font-size: var(--size-small);
    }
    .codes span {
      display: inline-flex;
      gap: 5px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureSheet {
  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly documents = this.store.selectSignal(selectScopedDocuments);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly passages = this.store.selectSignal(selectScopedPassages);
  protected readonly shown = signal(FIRST);
  private readonly pictures = computed(() =>
    naturalOrder(
      this.documents().filter((document) => document.ground.of === 'picture'),
      (one) => one.title,
    ),
  );
  protected readonly more = computed(() => Math.max(0, this.pictures().length - this.shown()));
  protected readonly rows = computed(() =>
    this.pictures()
      .slice(0, this.shown())
      .map((document) => this.rowOf(document)),
  );

  private rowOf(document: Document) {
    const columns = this.passages()[document.id];
    const codes = this.codes();
    const passages = columns ? unpackPassages(columns) : [];
    const idsOf = (some: typeof passages) => [...new Set(some.flatMap((passage) => passage.codings.map((coding) => coding.codeId)))];
    const share = shareCovered(coveredOf(document, columns));
    return {
      document,
      areas: passages.map((passage) => ({ area: passage.area!, colours: idsOf([passage]).flatMap((id) => codes[id]?.colour ?? []) })),
      codes: idsOf(passages).flatMap((id) => codes[id] ?? []),
      share: share > 0 && share < 0.005 ? '< 1 %' : `${Math.round(100 * share)} %`,
    };
  }
}
