import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MAT_DIALOG_DATA, type MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { addMemo, addMemoEntry } from '@core/change/commands/memos';
import { MEMO_KINDS, type MemoSubject } from '@core/model/memo';
import type { Id } from '@core/model/ids';
import { StudySession } from '../../state/study-session';
import { Prose } from './prose';
import { selectMemos } from '../../state/study.selectors';

/** A memo to write on in, or what a new one is about. */
export type MemoTask = { readonly memoId: Id } | { readonly about: MemoSubject | null };

/** Writes a memo where one is, without leaving it. Escape keeps nothing; what is written is kept by the button or Ctrl+Enter. */
@Component({
  selector: 'fl-memo-dialog',
  imports: [MatDialogModule, DatePipe, Prose],
  template: `
    <form
      (submit)="$event.preventDefault(); save(title.value, kind.value, text.value)"
      (keydown.control.enter)="save(title.value, kind.value, text.value)"
    >
      <h2 mat-dialog-title>{{ memo()?.title ?? 'New memo' }}</h2>
      <mat-dialog-content>
        @for (entry of memo()?.entries; track entry.id) {
          <div class="entry">
            <time>{{ entry.writtenAt | date: 'd MMMM y' }}</time><fl-prose [text]="entry.text" />
          </div>
        }
        <div class="head" [hidden]="memo()">
          <label class="field"
            ><span>Title</span
            ><input #title autocomplete="off" maxlength="500" [value]="memo()?.title ?? ''" [attr.cdkFocusInitial]="memo() ? null : ''"
          /></label>
          <label class="field"><span>Kind</span><input #kind list="memo-kinds" [value]="memo()?.kind ?? 'analytic'" /></label>
          <datalist id="memo-kinds">
            @for (one of kinds(); track one) {
              <option [value]="one"></option>
            }
          </datalist>
        </div>
        <label class="field"
          ><span>{{ memo() ? 'Write on' : 'Memo' }}</span
          ><textarea #text rows="8" [attr.cdkFocusInitial]="memo() ? '' : null"></textarea>
        </label>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button type="button" class="do quiet" mat-dialog-close>Cancel</button>
        <button type="submit" class="do">Keep</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    .head {
      display: grid;
      grid-template-columns: 1fr 170px;
      gap: 10px;
      margin-bottom: 10px;
    }
    .head[hidden] {
      display: none;
    }
    textarea,
    .entry {
      font: 400 14.5px / 1.6 var(--face-read);
    }
    .entry {
      margin-bottom: 12px;
    }
    time {
      display: block;
      font: 400 12px / 1.6 var(--face-ui);
      color: var(--ink-second);
    }
    mat-dialog-actions {
      gap: 8px;
      padding: 12px 24px 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MemoDialog {
  private readonly task = inject<MemoTask>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<MemoDialog>>(MatDialogRef);
  private readonly session = inject(StudySession);
  private readonly memos = inject(Store).selectSignal(selectMemos);
  protected readonly memo = computed(() => ('memoId' in this.task ? this.memos()[this.task.memoId] : undefined));
  protected readonly kinds = computed(() => [...new Set([...MEMO_KINDS, ...Object.values(this.memos()).map((memo) => memo.kind)])]);

  /** Opens over the present place, and is done when it closes. */
  static open(dialog: MatDialog, task: MemoTask): Promise<void> {
    const opened = dialog.open(MemoDialog, { data: task, width: '560px' });
    return new Promise((resolve) => opened.afterClosed().subscribe(() => resolve()));
  }

  protected save(title: string, kind: string, text: string): void {
    const memo = this.memo();
    const done = memo
      ? this.session.run(addMemoEntry(memo.id, text))
      : this.session.run(
          addMemo({ title: title.trim() || firstWords(text), kind, about: 'about' in this.task ? this.task.about : null, text }),
        );
    if (done) this.dialog.close();
  }
}

/** A title for a memo that was not given one. */
function firstWords(text: string): string {
  return text.trim().split(/\s+/).slice(0, 7).join(' ');
}
