import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Store } from '@ngrx/store';
import { noteAbsence, takeAbsenceBack } from '@core/commands/absences';
import type { Question } from '@core/model/query';
import { absencesIn } from '@core/patterns/absence';
import { StudySession } from '../../state/study-session';
import { selectData, selectScope } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { Ask } from '../../ui/dialogs/ask';

/** What was looked for and not found: it can be marked as expected, with a note that goes to the memos. */
@Component({
  selector: 'fl-absence-note',
  template: `
    @if (absence(); as absence) {
      <p><strong>Expected, not found</strong></p>
      <p class="note" dir="auto">{{ note() }}</p>
      <p class="acts">
        <button class="act" (click)="readMemo(absence.memoId)">Open the memo</button>
        <button class="act" (click)="takeBack(absence.id)">No longer expected</button>
      </p>
    } @else {
      <p class="second">Looked for here, and not found.</p>
      @if (question(); as question) {
        <button class="act" (click)="mark(question)">Mark as expected…</button>
      } @else {
        <p class="second">No question about passages asks for just this, so it cannot be marked as expected.</p>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 14px 16px;
    }
    .note {
      margin: 4px 0 8px;
      font-family: var(--face-read);
      white-space: pre-wrap;
    }
    .acts {
      display: flex;
      gap: 14px;
    }
    .act {
      margin-top: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AbsenceNote {
  /** What the empty cell asks; null where no question asks for just that. */
  readonly question = input.required<Question | null>();
  /** What was looked for, and where. */
  readonly title = input.required<string>();
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly ways = inject(Ways);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scope = this.store.selectSignal(selectScope);
  protected readonly absence = computed(() => {
    const data = this.data();
    return data && absencesIn(Object.values(data.tables.absence), this.scope())(this.question());
  });
  /** What was written of it last. */
  protected readonly note = computed(() => this.data()?.tables.memo[this.absence()?.memoId ?? '']?.entries.at(-1)?.text ?? '');

  protected async mark(question: Question): Promise<void> {
    const scope = this.scope();
    const title = this.title();
    await this.ask.reply({
      title: 'Expected, not found',
      lines: [title, 'The note becomes a memo, and the cell shows that something is missing here.'],
      label: 'Why was it expected, or what may its absence mean?',
      text: '',
      long: { what: 'absence', of: JSON.stringify(question.all) },
      yes: 'Mark it',
      tries: (note) => this.session.attempt(noteAbsence({ question, scope, title: `Not found: ${title}`.slice(0, 200), note })).refused,
    });
  }

  protected takeBack(absenceId: string): void {
    this.session.run(takeAbsenceBack(absenceId));
  }

  protected readMemo(memoId: string): void {
    this.ways.go(['memos'], { queryParams: { memo: memoId } });
  }
}
