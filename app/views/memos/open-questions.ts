import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { askComment, editMemo, memoFromComment } from '@core/commands/memos';
import { lastWritten, snippetOf } from '@core/memos/find-memos';
import type { Id } from '@core/model/ids';
import { passagesCommented } from '@core/passages/columns';
import { StudySession } from '../../state/study-session';
import { selectDocuments, selectPassages } from '../../state/study.selectors';
import { MemoNames } from '../../ui/memo/memo-names';
import { WritingDesk } from '../../ui/memo/writing-desk';
import { OpenQuestionsCount } from './open-questions-count';

/** Comments that are listed at most. */
const MOST = 500;

/** What is to be come back to: questions in memos and comments; and, if wanted, every comment, to be made a memo of. */
@Component({
  selector: 'fl-open-questions',
  imports: [DatePipe],
  template: `
    <div class="scroll" tabindex="0" role="region" aria-label="To come back to">
      @if (open.count() === 0) {
        <div class="empty">
          <strong>Nothing to come back to</strong>
          <p>
            Mark a memo as <em>a question to come back to</em> while writing it, or say <em>come back to it</em> under a comment on a
            passage. They wait here until they are answered.
          </p>
        </div>
      }
      <ul>
        @for (memo of open.memos(); track memo.id) {
          <li>
            <div>
              <button class="name" (click)="write(memo.id)">{{ memo.title }}</button>
              <p class="second">{{ snippet(memo, '') }}</p>
            </div>
            <span class="second small">{{ last(memo) | date: 'd MMM y' }}</span>
            <button class="act" (click)="answer(memo.id)">Answered</button>
          </li>
        }
        @for (passage of open.comments(); track passage.id) {
          <li>
            <div>
              <button class="name" (click)="read(passage.documentId, passage.id)">{{ passage.comment }}</button>
              <p class="second">a comment in {{ documents()[passage.documentId]?.title }}</p>
            </div>
            <button class="act" (click)="toMemo(passage.documentId, passage.id)">Make a memo of it</button>
            <button class="act" (click)="answerComment(passage.documentId, passage.id, false)">Answered</button>
          </li>
        }
      </ul>
      <h2>
        Comments on passages <span class="second">{{ comments().length }}</span>
        <button class="act" (click)="all.set(!all())" [attr.aria-expanded]="all()">{{ all() ? 'Fold' : 'Show' }}</button>
      </h2>
      @if (all()) {
        <ul>
          @for (passage of comments().slice(0, most); track passage.id) {
            <li>
              <div>
                <button class="name" (click)="read(passage.documentId, passage.id)">{{ passage.comment }}</button>
                <p class="second">{{ documents()[passage.documentId]?.title }}</p>
              </div>
              @if (!passage.open) {
                <button class="act" (click)="answerComment(passage.documentId, passage.id, true)">Come back to it</button>
              }
              <button class="act" (click)="toMemo(passage.documentId, passage.id)">Make a memo of it</button>
            </li>
          } @empty {
            <li class="second">No passage carries a comment.</li>
          }
        </ul>
        @if (comments().length > most) {
          <p class="second">and {{ comments().length - most }} more</p>
        }
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    .scroll {
      height: 100%;
      padding: 10px 20px 30px;
    }
    .empty {
      margin: 30px 0;
    }
    ul {
      max-width: 900px;
    }
    li {
      display: flex;
      align-items: baseline;
      gap: 12px;
      padding: 7px 0;
      border-bottom: 1px solid var(--rule);
    }
    li div {
      flex: 1;
      min-width: 0;
    }
    .name {
      font: 600 14px / 1.5 var(--face-read);
      min-height: 24px;
    }
    .name:hover {
      color: var(--accent);
    }
    h2 {
      font: 600 15px / 1.5 var(--face-read);
      margin-top: 22px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OpenQuestions {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly desk = inject(WritingDesk);
  private readonly names = inject(MemoNames);
  protected readonly open = inject(OpenQuestionsCount);
  protected readonly documents = this.store.selectSignal(selectDocuments);
  private readonly passages = this.store.selectSignal(selectPassages);
  protected readonly all = signal(false);
  protected readonly most = MOST;
  protected readonly last = lastWritten;
  protected readonly snippet = snippetOf;
  protected readonly comments = computed(() => Object.values(this.passages()).flatMap((columns) => passagesCommented(columns)));

  protected write(memoId: Id): void {
    void this.desk.open({ memoId });
  }

  protected answer(memoId: Id): void {
    this.session.run(editMemo(memoId, { question: 'answered' }));
  }

  protected answerComment(documentId: Id, passageId: Id, open: boolean): void {
    this.session.run(askComment(documentId, passageId, open));
  }

  protected toMemo(documentId: Id, passageId: Id): void {
    this.session.run(memoFromComment(documentId, passageId));
  }

  protected read(documentId: Id, id: Id): void {
    this.names.goTo({ type: 'passage', documentId, id });
  }
}
