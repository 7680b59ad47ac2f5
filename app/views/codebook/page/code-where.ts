import { Counted } from '../../../ui/counted/counted';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { CodePage } from '@core/codebook/code-page';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import { selectCases, selectCodes, selectDocuments, selectStudy } from '../../../state/study.selectors';
import { Swatch } from '../../../ui/swatch/swatch';

/** Rows of a list that are shown; the rest is told as a number. */
const MOST = 30;

/** Where a code is: documents, cases, speakers, and the codes it meets most. */
@Component({
  selector: 'fl-code-where',
  imports: [Counted, RouterLink, Swatch],
  template: `
    @if (page(); as page) {
      @if (page.passages.length === 0) {
        <p class="second">Nothing in scope carries it. Widen what you are looking at in the line at the top, or give it while reading.</p>
      } @else {
        <section>
          <h3>In {{ page.documents.length | counted: 'document' }} <span class="second">passages</span></h3>
          @for (one of page.documents.slice(0, most); track one.of) {
            <p>
              <a [routerLink]="['/study', study()!.id, 'reading', one.of]" [queryParams]="{ from: 'the codebook' }">{{
                documents()[one.of]?.title
              }}</a>
              <span class="number">{{ one.count.toLocaleString() }}</span>
            </p>
          }
          @if (page.documents.length > most) {
            <p class="second">and {{ page.documents.length - most }} more</p>
          }
        </section>
        @if (page.cases.length > 0) {
          <section>
            <h3>{{ page.cases.length | counted: study()!.caseWord }} <span class="second">passages</span></h3>
            @for (one of page.cases.slice(0, most); track one.of) {
              <p>
                {{ cases()[one.of]?.name }}<span class="number">{{ one.count.toLocaleString() }}</span>
              </p>
            }
          </section>
        }
        @if (page.speakers.length > 0) {
          <section>
            <h3>Said by <span class="second">passages</span></h3>
            @for (one of page.speakers.slice(0, most); track one.of) {
              <p>
                {{ one.of }}<span class="number">{{ one.count.toLocaleString() }}</span>
              </p>
            }
          </section>
        }
        <section>
          <h3>Codes it meets <span class="second">pairs of overlapping passages</span></h3>
          @for (one of meets(); track one.code.id) {
            <p>
              <button class="code" (click)="shown.emit(one.code.id)">
                <fl-swatch [mark]="one.code.mark" [colour]="one.code.colour" />{{ one.code.name }}
              </button>
              <span class="number">{{ one.count.toLocaleString() }}</span>
            </p>
          } @empty {
            <p class="second">None.</p>
          }
        </section>
      }
    } @else {
      <p class="second">Looking…</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 14px;
      padding: 14px 18px 24px;
    }
    h3 {
      display: flex;
      justify-content: space-between;
      border-bottom: 1px solid var(--rule);
      margin-bottom: 2px;
    }
    h3 .second {
      font-weight: 400;
      font-size: var(--size-least);
    }
    section p {
      display: flex;
      justify-content: space-between;
      gap: 10px;
      min-height: 24px;
      align-items: center;
    }
    a {
      color: var(--ink);
    }
    .code {
      display: inline-flex;
      gap: 8px;
      align-items: baseline;
      min-height: 24px;
    }
    .code:hover {
      color: var(--accent);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeWhere {
  readonly page = input.required<CodePage | null>();
  readonly code = input.required<Code>();
  readonly shown = output<Id>();
  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly documents = this.store.selectSignal(selectDocuments);
  protected readonly cases = this.store.selectSignal(selectCases);
  private readonly codes = this.store.selectSignal(selectCodes);
  protected readonly most = MOST;
  protected readonly meets = computed(() =>
    (this.page()?.meets ?? []).slice(0, 12).flatMap(({ of, count }) => {
      const code = this.codes()[of];
      return code ? [{ code, count }] : [];
    }),
  );
}
