import { Counted } from '../../ui/counted/counted';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, type MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { renameCodes } from '@core/commands/codebook-work';
import { renamed, type Renaming } from '@core/codebook/rename';
import type { Id } from '@core/model/ids';
import { StudySession } from '../../state/study-session';
import { selectCodes } from '../../state/study.selectors';

/** Changes the names of several codes by a rule, each shown before. */
@Component({
  selector: 'fl-rename-dialog',
  imports: [Counted, MatDialogModule],
  template: `
    <form (submit)="$event.preventDefault(); rename()">
      <h2 mat-dialog-title>Names of {{ ids.length | counted: 'code' }}</h2>
      <mat-dialog-content>
        <div class="rule">
          <select #how aria-label="What to do" (change)="setHow(how.value)">
            <option value="replace">replace</option>
            <option value="prefix">put in front</option>
            <option value="strip">take off the front</option>
          </select>
          <input #find cdkFocusInitial aria-label="Words" autocomplete="off" (input)="words.set(find.value)" />
          @if (how_() === 'replace') {
            <span>by</span><input #by aria-label="By" autocomplete="off" (input)="instead.set(by.value)" />
            <label class="check"><input #exact type="checkbox" (change)="matchCase.set(exact.checked)" />same case</label>
          }
        </div>
        <table>
          <caption class="visually-hidden">
            Names before and after
          </caption>
          @for (one of preview(); track one.id) {
            <tr>
              <td class="second">{{ one.before }}</td>
              <td aria-hidden="true">→</td>
              <td>{{ one.after }}</td>
            </tr>
          } @empty {
            <tr>
              <td class="second">No name would change.</td>
            </tr>
          }
        </table>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button type="button" class="do quiet" mat-dialog-close>Cancel</button>
        <button type="submit" class="do" [disabled]="preview().length === 0">Rename {{ preview().length }}</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    .rule {
      display: flex;
      align-items: center;
      gap: 8px;
      margin-bottom: 10px;
    }
    .rule select {
      width: 150px;
    }
    .check {
      display: flex;
      gap: 6px;
      align-items: center;
      white-space: nowrap;
    }
    td {
      padding: 2px 8px 2px 0;
    }
    mat-dialog-content {
      max-height: 420px;
    }
    mat-dialog-actions {
      gap: 8px;
      padding: 12px 24px 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RenameDialog {
  private readonly dialog = inject<MatDialogRef<RenameDialog>>(MatDialogRef);
  private readonly session = inject(StudySession);
  private readonly codes = inject(Store).selectSignal(selectCodes);
  protected readonly ids = inject<readonly Id[]>(MAT_DIALOG_DATA);
  protected readonly how_ = signal<Renaming['how']>('replace');
  protected readonly words = signal('');
  protected readonly instead = signal('');
  protected readonly matchCase = signal(false);
  private readonly names = computed(() => {
    const words = this.words();
    const how = this.how_();
    const renaming: Renaming =
      how === 'replace'
        ? { how, find: words, instead: this.instead(), matchCase: this.matchCase() }
        : how === 'prefix'
          ? { how, add: words }
          : { how, strip: words };
    return renamed(
      this.ids.flatMap((id) => this.codes()[id] ?? []),
      renaming,
    );
  });
  protected readonly preview = computed(() => [...this.names()].map(([id, after]) => ({ id, before: this.codes()[id]!.name, after })));

  static open(dialog: MatDialog, ids: readonly Id[]): void {
    dialog.open(RenameDialog, { data: ids, width: '620px' });
  }

  protected setHow(how: string): void {
    this.how_.set(how as Renaming['how']);
  }

  protected rename(): void {
    if (this.session.run(renameCodes(this.names()))) this.dialog.close();
  }
}
