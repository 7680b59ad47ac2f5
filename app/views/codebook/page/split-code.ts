import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  input,
  output,
  resource,
  signal,
  viewChild,
  afterNextRender,
} from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { moveCodings } from '@core/commands/move-codings';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Hit } from '@core/queries/evaluate';
import { placeWords } from '@core/text/citation';
import { paragraphAt } from '@core/text/paragraphs';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectDocuments, selectPassages } from '../../../state/study.selectors';
import { TextCache } from '../../../state/text-cache';
import { ChooseCode, wantedCodes } from '../../../ui/picker/choose-code';
import { Swatch } from '../../../ui/swatch/swatch';
import { passageOf } from '@core/passages/columns';

/** Goes through a code's passages one by one; a number key moves the passage to a new code and shows the next. */
@Component({
  selector: 'fl-split-code',
  imports: [Swatch],
  template: `
    <div #desk class="desk" tabindex="0" role="group" [attr.aria-label]="'Split ' + code().name" (keydown)="onKey($event)">
      <header>
        <span class="second">{{ at() + 1 }} of {{ walk().length }}, {{ left() }} still carry it</span>
        <button class="act" (click)="closed.emit()">Done</button>
      </header>
      @if (piece(); as piece) {
        <p class="second small">{{ piece.where }}</p>
        <p class="words" dir="auto">
          <span class="context">{{ piece.before }}</span><mark>{{ piece.words }}</mark
          ><span class="context">{{ piece.after }}</span>
        </p>
        @if (carried().length > 0) {
          <p class="second small">carries {{ carried().join(', ') }}</p>
        }
      }
      <ul>
        @for (target of targets(); track target.id) {
          <li>
            <button (click)="give($index)">
              <kbd>{{ $index + 1 }}</kbd><fl-swatch [mark]="target.mark" [colour]="target.colour" />{{ target.name }}
            </button>
          </li>
        }
        <li>
          <button (click)="another()"><kbd>N</kbd>a code to split off…</button>
        </li>
        <li>
          <button (click)="takeOff()"><kbd>0</kbd>take {{ code().name }} off</button>
        </li>
        <li>
          <button (click)="step(1)"><kbd>→</kbd>leave it as it is, next</button>
        </li>
      </ul>
      <label class="check"
        ><input #both type="checkbox" [checked]="keep()" (change)="keep.set(both.checked)" />keep {{ code().name }} as well</label
      >
    </div>
  `,
  styles: `
    .desk {
      display: grid;
      gap: 9px;
      padding: 12px 18px 24px;
      min-height: 100%;
      align-content: start;
    }
    .desk:focus-visible {
      outline-offset: -3px;
    }
    header {
      display: flex;
      justify-content: space-between;
      align-items: center;
    }
    .words {
      font: 400 14.5px / 1.6 var(--face-read);
    }
    mark {
      background: var(--selection);
      color: var(--ink);
    }
    .context {
      color: var(--ink-second);
    }
    li button {
      display: flex;
      gap: 9px;
      align-items: baseline;
      min-height: 28px;
      width: 100%;
      padding: 2px 4px;
      border-radius: 4px;
    }
    li button:hover {
      background: var(--accent-ground);
    }
    .check {
      display: flex;
      gap: 8px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SplitCode {
  readonly code = input.required<Code>();
  readonly hits = input.required<readonly Hit[]>();
  readonly closed = output<void>();
  private readonly session = inject(StudySession);
  private readonly dialog = inject(MatDialog);
  private readonly texts = inject(TextCache);
  private readonly store = inject(Store);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly desk = viewChild.required<ElementRef<HTMLElement>>('desk');
  /** The passages as they were when the walk began: one that was moved stays in its place, to come back to. */
  private readonly begun = signal<readonly Hit[] | null>(null);
  private readonly targetIds = signal<readonly Id[]>([]);
  protected readonly at = signal(0);
  protected readonly keep = signal(false);
  protected readonly walk = computed(() => this.begun() ?? this.hits());
  protected readonly left = computed(() => this.hits().length);
  protected readonly targets = computed(() => this.targetIds().flatMap((id) => this.codes()[id] ?? []));
  private readonly hit = computed(() => this.walk()[this.at()]);
  protected readonly carried = computed(() => {
    const hit = this.hit();
    const passage = hit && passageOf(this.passages()[hit.documentId], hit.passageId);
    return [...new Set(passage?.codings.flatMap((coding) => this.codes()[coding.codeId]?.name ?? []))];
  });
  private readonly shown = resource({
    params: () => (this.hit() ? { changes: this.texts.changes(), hit: this.hit()! } : undefined),
    loader: async ({ params: { hit } }) => {
      const text = await this.texts.get(hit.documentId);
      const document = this.documents()[hit.documentId];
      if (!text || !document) return null;
      const first = text.paragraphs[paragraphAt(text.paragraphs, hit.start)]!;
      const last = text.paragraphs[paragraphAt(text.paragraphs, hit.end - 1)]!;
      return {
        where: placeWords(document, text, hit),
        before: text.text.slice(first.body, hit.start).slice(-300),
        words: text.text.slice(hit.start, hit.end),
        after: text.text.slice(hit.end, last.end).slice(0, 300),
      };
    },
  });
  protected readonly piece = computed(() => (this.shown.hasValue() ? this.shown.value() : null));

  constructor() {
    afterNextRender(() => {
      this.begun.set(this.hits());
      this.desk().nativeElement.focus();
    });
  }

  protected onKey(event: KeyboardEvent): void {
    if ((event.target as HTMLElement).matches('input') || event.ctrlKey || event.metaKey || event.altKey) return;
    if (/^[1-9]$/.test(event.key)) this.give(Number(event.key) - 1);
    else if (event.key === '0') this.takeOff();
    else if (event.key.toLowerCase() === 'n') void this.another();
    else if (event.key === 'ArrowRight') this.step(1);
    else if (event.key === 'ArrowLeft') this.step(-1);
    else if (event.key === 'Escape') this.closed.emit();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  protected step(by: number): void {
    this.at.update((at) => Math.max(0, Math.min(this.walk().length - 1, at + by)));
  }

  protected give(at: number): void {
    const target = this.targets()[at];
    const hit = this.hit();
    if (!target || !hit) return;
    if (this.session.run(moveCodings(this.code().id, [hit], { codeIds: [target.id] }, this.keep()))) this.step(1);
    this.desk().nativeElement.focus();
  }

  protected takeOff(): void {
    const hit = this.hit();
    if (hit && this.session.run(moveCodings(this.code().id, [hit], { codeIds: [] }))) this.step(1);
  }

  /** One more code to split off: this passage is the first to go to it. */
  protected async another(): Promise<void> {
    const hit = this.hit();
    const chosen = await ChooseCode.open(this.dialog, {
      title: `Split off from ${this.code().name}`,
      lines: ['The passage shown goes to it; afterwards it has a number key.'],
      except: new Set([this.code().id, ...this.targetIds()]),
      mayMake: true,
    });
    const to = wantedCodes(chosen, this.code().parentId);
    if (to && hit) {
      const action = this.session.run(moveCodings(this.code().id, [hit], to, this.keep()));
      const made = action?.change.find((one) => one.type === 'code');
      const id = to.codeIds[0] ?? made?.after?.id;
      if (action && id) {
        this.targetIds.update((ids) => [...ids, id]);
        this.step(1);
      }
    }
    this.desk().nativeElement.focus();
  }
}
