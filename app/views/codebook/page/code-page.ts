import { Counted } from '../../../ui/counted/counted';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, resource, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Code } from '@core/model/code';
import type { CodePage as Page } from '@core/codebook/code-page';
import type { Id } from '@core/model/ids';
import { childrenOf } from '@core/codebook/tree';
import { selectCodes, selectData, selectScope } from '../../../state/study.selectors';
import { AnalysisService } from '../../../workers/analysis-service';
import { Icon } from '../../../ui/icon/icon';
import { Swatch } from '../../../ui/swatch/swatch';
import { CodeHistory } from './code-history';
import { CodeMeaning } from './code-meaning';
import { CodePassages } from './code-passages';
import { CodeWhere } from './code-where';
import { CodeCounts, howOften } from '../../../state/code-counts';

const SIDES = ['Meaning', 'Where it is', 'Passages', 'History'] as const;
type Side = (typeof SIDES)[number];

/** The page of one code: what it means, where it is, its passages, and how it came about. */
@Component({
  selector: 'fl-code-page',
  imports: [Counted, Icon, CodeHistory, CodeMeaning, CodePassages, CodeWhere, Swatch],
  template: `
    <header>
      <h2 class="title">
        <fl-swatch [mark]="code().mark" [colour]="code().colour" />{{ code().name }}
        @if (closes()) {
          <button class="icon" (click)="closed.emit()" aria-label="Close the page of the code"><fl-icon name="x" /></button>
        }
      </h2>
      <p class="second small">
        {{ own() | counted: 'passage' }} in scope carry it
        @if (hasChildren()) {
          ·
          <button class="part" (click)="withUnder.set(!withUnder())">
            {{ withUnder() ? 'shown with what is under it' : 'shown alone' }}
          </button>
        }
      </p>
      <div class="tabs" role="tablist" aria-label="The code">
        @for (one of sides; track one) {
          <button
            role="tab"
            [id]="'side-' + $index"
            [attr.aria-selected]="one === side()"
            [tabindex]="one === side() ? 0 : -1"
            [class.here]="one === side()"
            (click)="side.set(one)"
            (keydown)="onKey($event, $index)"
          >
            {{ one }}
          </button>
        }
      </div>
    </header>
    <div class="scroll" role="tabpanel" [attr.aria-label]="side()" tabindex="0">
      @switch (side()) {
        @case ('Where it is') {
          <fl-code-where [page]="page()" [code]="code()" (shown)="shown.emit($event)" />
        }
        @case ('Passages') {
          <fl-code-passages [page]="page()" [code]="code()" />
        }
        @case ('History') {
          <fl-code-history [code]="code()" />
        }
        @default {
          <fl-code-meaning [code]="code()" (addUnder)="addUnder.emit()" (removing)="removing.emit()" (shown)="shown.emit($event)" />
        }
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: auto 1fr;
      min-height: 0;
      min-width: 0;
      border-left: 1px solid var(--rule);
      background: var(--ground);
      --lies-on: var(--ground);
    }
    header {
      padding: 12px 18px 0;
      border-bottom: 1px solid var(--rule);
    }
    .title {
      display: flex;
      gap: 9px;
      align-items: baseline;
      font-size: 16px;
      overflow-wrap: anywhere;
    }
    .title .icon {
      margin-left: auto;
    }
    .tabs {
      margin-top: 6px;
    }
    .tabs button {
      padding: 3px 0 6px;
      border-bottom: 2px solid transparent;
      min-height: 26px;
    }
    .tabs button.here {
      color: var(--accent);
      font-weight: 600;
      border-color: var(--accent);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodePage {
  readonly code = input.required<Code>();
  /** Whether the page can be put away. */
  readonly closes = input(false);
  readonly closed = output<void>();
  readonly addUnder = output<void>();
  readonly removing = output<void>();
  /** Another code is to be shown. */
  readonly shown = output<Id>();

  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scope = this.store.selectSignal(selectScope);
  private readonly counts = inject(CodeCounts).scoped;
  private readonly codes = this.store.selectSignal(selectCodes);
  protected readonly sides = SIDES;
  protected readonly side = signal<Side>('Meaning');
  protected readonly withUnder = signal(false);
  protected readonly own = computed(() => howOften(this.counts(), 'own', this.code().id));
  protected readonly hasChildren = computed(() => childrenOf(this.codes(), this.code().id).length > 0);
  private readonly asked = resource({
    params: () =>
      this.side() === 'Where it is' || this.side() === 'Passages'
        ? { data: this.data()!, codeId: this.code().id, withUnder: this.withUnder() && this.hasChildren(), scope: this.scope() }
        : undefined,
    loader: ({ params, abortSignal }) => this.analysis.codePage(params.data, params.codeId, params.withUnder, params.scope, abortSignal),
  });
  /** The last answer about this code stays while the next is on its way. */
  private readonly kept = signal<{ readonly codeId: Id; readonly page: Page } | null>(null);
  protected readonly page = computed(() => (this.kept()?.codeId === this.code().id ? this.kept()!.page : null));

  constructor() {
    effect(() => {
      const page = this.asked.hasValue() ? this.asked.value() : null;
      if (page) this.kept.set({ codeId: this.code().id, page });
    });
  }

  protected onKey(event: KeyboardEvent, at: number): void {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    const next = SIDES[at + step];
    if (step === 0 || !next) return;
    event.preventDefault();
    this.side.set(next);
    document.getElementById(`side-${at + step}`)?.focus();
  }
}
