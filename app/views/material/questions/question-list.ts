import { Counted } from '../../../ui/counted/counted';
import { counted } from '@core/text/counted';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentsAsking, joinQuestions, moveQuestion, questionsOf, removeQuestion, rewordQuestion } from '@core/commands/questions';
import type { AskedQuestion } from '@core/model/asked-question';
import type { Id } from '@core/model/ids';
import { StudySession } from '../../../state/study-session';
import { selectData, selectStudy } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';

/** The questions of structured material: in which documents they are asked, how often answered; reworded, joined, removed. */
@Component({
  selector: 'fl-question-list',
  imports: [Counted, RouterLink, Icon],
  template: `
    <div class="scroll">
      @if (rows().length === 0) {
        <div class="empty">
          <strong>No questions yet</strong>
          <p>
            Where every document answers the same questions, as in a survey or a structured interview, they are listed here. Bring in a
            table with open questions, or transcripts in which questions are marked.
          </p>
        </div>
      } @else {
        <table>
          <thead>
            <tr>
              <th scope="col"><span class="visually-hidden">Choose</span></th>
              <th scope="col">Question</th>
              <th scope="col" class="number">Documents</th>
              <th scope="col" class="number">Answered</th>
              <th scope="col"></th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.question.id) {
              <tr>
                <td>
                  <input
                    type="checkbox"
                    #on
                    [checked]="picked().has(row.question.id)"
                    (change)="pick(row.question.id, on.checked)"
                    [attr.aria-label]="'Choose ' + row.question.text"
                  />
                </td>
                <th scope="row">
                  <a
                    [routerLink]="['/study', study()!.id, 'reading', 'question', row.question.id]"
                    [title]="'Read all answers to this question'"
                    >{{ row.question.text }}</a
                  >
                </th>
                <td class="number">{{ row.documents.toLocaleString() }}</td>
                <td class="number">{{ row.answered.toLocaleString() }}</td>
                <td class="acts">
                  <button class="act" (click)="reword(row.question)">Reword</button>
                  <button class="icon" (click)="move(row.question.id, -1)" [attr.aria-label]="'Move up: ' + row.question.text">
                    <fl-icon name="arrow-up" />
                  </button>
                  <button class="icon" (click)="move(row.question.id, 1)" [attr.aria-label]="'Move down: ' + row.question.text">
                    <fl-icon name="arrow-down" />
                  </button>
                  <button class="act danger" (click)="remove(row.question)">Remove</button>
                </td>
              </tr>
            }
          </tbody>
        </table>
        @if (picked().size > 1) {
          <p>
            <button class="do" (click)="join()">Join these {{ picked().size }} questions</button>
          </p>
        }
        <p class="second">
          {{ documents() | counted: 'document answers' : 'documents answer' }} questions.
          <a [routerLink]="['/study', study()!.id, 'material', 'import']">Bring in more</a>
        </p>
      }
    </div>
  `,
  styles: `
    .scroll {
      padding: 14px 24px;
      --icon-size: 14px;
    }
    table {
      border-collapse: collapse;
      max-width: 1000px;
    }
    th,
    td {
      text-align: left;
      padding: 5px 14px 5px 0;
      border-bottom: 1px solid var(--rule);
    }
    td.number,
    th.number {
      text-align: right;
    }
    thead th {
      font: 500 12px / 1.4 var(--face-ui);
      color: var(--ink-second);
    }
    tbody th {
      font: 400 15px / 1.5 var(--face-read);
      min-width: 280px;
    }
    .acts {
      white-space: nowrap;
    }
    p {
      margin-top: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestionList {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);
  protected readonly picked = signal<ReadonlySet<Id>>(new Set());

  protected readonly rows = computed(() => {
    const documents = new Map<Id, number>();
    const answered = new Map<Id, number>();
    for (const document of Object.values(this.data()!.tables.document)) {
      for (const answer of document.answers) {
        documents.set(answer.questionId, (documents.get(answer.questionId) ?? 0) + 1);
        if (answer.end > answer.start) answered.set(answer.questionId, (answered.get(answer.questionId) ?? 0) + 1);
      }
    }
    return questionsOf(this.data()!).map((question) => ({
      question,
      documents: documents.get(question.id) ?? 0,
      answered: answered.get(question.id) ?? 0,
    }));
  });
  protected readonly documents = computed(
    () => Object.values(this.data()!.tables.document).filter((document) => document.answers.length > 0).length,
  );

  protected pick(id: Id, on: boolean): void {
    const next = new Set(this.picked());
    if (on) next.add(id);
    else next.delete(id);
    this.picked.set(next);
  }

  protected move(id: Id, by: -1 | 1): void {
    this.session.run(moveQuestion(id, by));
  }

  protected async reword(question: AskedQuestion): Promise<void> {
    const documents = documentsAsking(this.data()!, question.id);
    const reply = await this.ask.reply({
      title: 'Reword the question',
      lines: [`It stands in ${counted(documents.length, 'document')}; codings and answers move with the words.`],
      label: 'Question',
      text: question.text,
      yes: 'Reword everywhere',
      other: 'Only in this list',
    });
    if (!reply?.text.trim()) return;
    const texts = reply.chose === 'yes' ? await this.session.textsOf(documents.map((document) => document.id)) : [];
    this.session.run(rewordQuestion(question.id, reply.text, texts));
  }

  protected async join(): Promise<void> {
    const [into, ...others] = this.rows().filter((row) => this.picked().has(row.question.id));
    const goOn = await this.ask.confirm({
      title: `Join ${others.length + 1} questions?`,
      lines: [`All their answers belong to “${into!.question.text}” from then on. The words in the documents stay. It can be undone.`],
      yes: 'Join',
    });
    if (goOn)
      this.session.run(
        joinQuestions(
          into!.question.id,
          others.map((row) => row.question.id),
        ),
      );
    this.picked.set(new Set());
  }

  protected async remove(question: AskedQuestion): Promise<void> {
    const row = this.rows().find((one) => one.question.id === question.id)!;
    const goOn = await this.ask.confirm({
      title: 'Remove this question?',
      lines: [
        `${counted(row.answered, 'answer')} in ${counted(row.documents, 'document')} no longer ${row.answered === 1 ? 'counts as an answer' : 'count as answers'} to it. No words and no codings go. It can be undone.`,
      ],
      yes: 'Remove',
      danger: true,
    });
    if (goOn) this.session.run(removeQuestion(question.id));
  }
}
