import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import { Store } from '@ngrx/store';
import { historyOf, type CodeEvent } from '@core/codebook/versions';
import type { Code } from '@core/model/code';
import { StudySession } from '../../../state/study-session';
import { selectCoders, selectCodes, selectPassages, selectStudy } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';

/** How a code came about: when and from which passage it was made, every name, place and definition since. */
@Component({
  selector: 'fl-code-history',
  imports: [DatePipe],
  template: `
    <ol>
      @for (one of events(); track one.seq) {
        <li>
          <time>{{ one.at | date: 'd MMM y, HH:mm' }}</time>
          <p>
            <strong>{{ coders()[one.coderId]?.name }}</strong>: {{ one.words }}
            @if (one.passage && isThere(one)) {
              <button class="act small" (click)="read(one)">Read the passage</button>
            }
          </p>
          @if (one.definition) {
            <p class="definition" dir="auto">{{ one.definition }}</p>
          }
        </li>
      }
      @if (before()) {
        <li>
          <time>{{ code().createdAt | date: 'd MMM y, HH:mm' }}</time>
          <p>
            <strong>{{ coders()[code().coderId]?.name }}</strong>: made{{
              study()?.createdAt === code().createdAt ? '' : '; it came into the study without its earlier history'
            }}
          </p>
        </li>
      }
    </ol>
  `,
  styles: `
    :host {
      display: block;
      padding: 14px 18px 24px;
    }
    li {
      padding-bottom: 10px;
    }
    time {
      color: var(--ink-second);
      font-size: var(--size-small);
    }
    .definition {
      font: 400 13.5px / 1.5 var(--face-read);
      border-left: 2px solid var(--rule-strong);
      padding-left: 9px;
      white-space: pre-line;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeHistory {
  readonly code = input.required<Code>();
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ways = inject(Ways);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly passages = this.store.selectSignal(selectPassages);
  protected readonly coders = this.store.selectSignal(selectCoders);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly found = resource({
    // the record itself is a parameter, so that a change of it is told at once
    params: () => this.code(),
    loader: ({ params }) => this.session.touching(`code:${params.id}`),
  });
  /** The newest first. */
  protected readonly events = computed(() =>
    historyOf(
      this.code().id,
      this.found.hasValue() ? this.found.value() : [],
      (id) => this.codes()[id]?.name ?? 'a code that is gone',
    ).reverse(),
  );
  /** Whether it was there before the journal tells of it. */
  protected readonly before = computed(() => !this.found.isLoading() && !this.events().some((one) => one.words.startsWith('made as')));

  protected isThere(one: CodeEvent): boolean {
    return one.passage !== undefined && this.passages()[one.passage.documentId]?.ids.includes(one.passage.passageId) === true;
  }

  protected read(one: CodeEvent): void {
    this.ways.go(['reading', one.passage!.documentId], {
      queryParams: { passage: one.passage!.passageId, from: 'the codebook' },
    });
  }
}
