import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { JournalEntry } from '@core/change/journal';
import { StudySession } from '../../state/study-session';
import { selectCoders, selectHistory, selectStudy } from '../../state/study.selectors';

const PAGE = 100;

/** The study's audit trail: who did what and when, the newest first. */
@Component({
  selector: 'fl-log',
  imports: [DatePipe, RouterLink],
  template: `
    <div class="place">
      <header class="place-head">
        <h1>Log</h1>
        <span class="second"
          >{{ history().seq.toLocaleString() }} {{ history().seq === 1 ? 'entry' : 'entries' }}; every change, by whom and when</span
        >
        <nav class="tabs end" aria-label="Memos and log">
          <a [routerLink]="['/study', study()!.id, 'memos']">Memos</a>
          <a class="here" [routerLink]="['/study', study()!.id, 'log']" aria-current="page">Log</a>
        </nav>
      </header>
      <div class="scroll" tabindex="0" role="region" aria-label="Log entries">
        @for (day of days(); track day.day) {
          <section>
            <h3>{{ day.entries[0]!.at | date: 'EEEE, d MMMM y' }}</h3>
            <ol>
              @for (entry of day.entries; track entry.seq) {
                <li>
                  <time>{{ entry.at | date: 'HH:mm' }}</time><span
                    ><strong>{{ coders()[entry.coderId]?.name }}</strong> {{ entry.sentence }}</span
                  >
                </li>
              }
            </ol>
          </section>
        } @empty {
          <div class="empty">
            <strong>Nothing done yet</strong>
            <p>Every change to the study is written down here by itself, so that you can say later how you got where you are.</p>
          </div>
        }
        @if (more()) {
          <button class="act" (click)="loadMore()">Earlier entries</button>
        }
      </div>
    </div>
  `,
  styles: `
    section {
      padding: 12px 20px 4px;
      max-width: 860px;
    }
    h3 {
      color: var(--ink-second);
      margin-bottom: 3px;
    }
    li {
      display: grid;
      grid-template-columns: 58px 1fr;
      min-height: 24px;
      align-items: baseline;
    }
    time {
      color: var(--ink-second);
    }
    .scroll > .act {
      margin: 8px 16px 24px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Log {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly history = this.store.selectSignal(selectHistory);
  protected readonly coders = this.store.selectSignal(selectCoders);
  private readonly entries = signal<readonly JournalEntry[]>([]);
  protected readonly more = computed(() => (this.entries().at(-1)?.seq ?? 1) > 1);
  protected readonly days = computed(() =>
    [...Map.groupBy(this.entries(), (entry) => new Date(entry.at).toDateString())].map(([day, entries]) => ({ day, entries })),
  );

  constructor() {
    effect(() => {
      const { seq } = this.history();
      const shown = untracked(this.entries).length;
      void this.session.journal(seq + 1, Math.max(PAGE, shown)).then((entries) => this.entries.set(entries));
    });
  }

  protected async loadMore(): Promise<void> {
    const before = this.entries().at(-1)!.seq;
    const earlier = await this.session.journal(before, PAGE);
    this.entries.update((entries) => [...entries, ...earlier]);
  }
}
