import { Counted } from '../../ui/counted/counted';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, type MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { JoinAhead, joinCodes, joinedDescription, type JoinedDescription } from '@core/commands/join-codes';
import { DESCRIPTION_LABELS } from '@core/codebook/described';
import { rowsCarrying } from '@core/passages/columns';
import type { Id } from '@core/model/ids';
import { StudySession } from '../../state/study-session';
import { selectCodes, selectPassages } from '../../state/study.selectors';
import { Swatch } from '../../ui/swatch/swatch';
import { CodeCounts, howOften } from '../../state/code-counts';

/** Documents whose passages are worked out beforehand at a time: a few milliseconds' work. */
const AHEAD_AT_ONCE = 40;

/** Joins codes: which one stays, and what it will say of itself. */
@Component({
  selector: 'fl-join-dialog',
  imports: [Counted, MatDialogModule, Swatch],
  template: `
    <h2 mat-dialog-title>Join {{ ids().length }} codes</h2>
    <mat-dialog-content>
      <fieldset>
        <legend class="second">This one stays; the passages of all carry it</legend>
        @for (code of joining(); track code.id) {
          <label class="choice">
            <input type="radio" name="stays" [checked]="code.id === staysId()" (change)="staysId.set(code.id)" />
            <fl-swatch [mark]="code.mark" [colour]="code.colour" />{{ code.name }}
            <span class="second">{{ passagesOf(code.id)?.toLocaleString() }}</span>
          </label>
        }
      </fieldset>
      <p class="second">
        {{ passages() | counted: 'passage' }} in all; a passage that carries several keeps one. Codes under those that go move under the one
        that stays, and memos and sets follow. The names are remembered in its history. It can be undone.
      </p>
      @for (field of fields(); track field.key) {
        <label class="field"
          ><span>{{ field.label }}</span
          ><textarea #box rows="4" [value]="field.text" (input)="say(field.key, box.value)"></textarea>
        </label>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="do quiet" mat-dialog-close>Cancel</button>
      <button class="do" (click)="join()">Join the codes</button>
    </mat-dialog-actions>
  `,
  styles: `
    fieldset {
      border: 0;
      padding: 0;
      margin: 0 0 8px;
    }
    .choice {
      display: flex;
      align-items: baseline;
      gap: 9px;
      min-height: 26px;
    }
    .choice input {
      align-self: center;
    }
    .field {
      margin-top: 8px;
    }
    textarea {
      font: 400 13.5px / 1.5 var(--face-read);
    }
    mat-dialog-actions {
      gap: 8px;
      padding: 12px 24px 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JoinDialog {
  private readonly dialog = inject<MatDialogRef<JoinDialog, Id>>(MatDialogRef);
  private readonly session = inject(StudySession);
  private readonly store = inject(Store);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly allPassages = this.store.selectSignal(selectPassages);
  protected readonly ids = signal(inject<readonly Id[]>(MAT_DIALOG_DATA));
  protected readonly staysId = signal(this.ids()[0]!);
  /** Texts that were edited here, by field. */
  private readonly edited = signal<JoinedDescription>({});
  protected readonly joining = computed(() => this.ids().flatMap((id) => this.codes()[id] ?? []));
  private readonly counts = inject(CodeCounts).all;
  protected readonly passages = computed(() => {
    const wanted = new Set(this.ids());
    return Object.values(this.allPassages()).reduce((sum, columns) => sum + rowsCarrying(columns, wanted).size, 0);
  });
  private readonly proposed = computed(() => {
    const stays = this.codes()[this.staysId()];
    return joinedDescription([...(stays ? [stays] : []), ...this.joining().filter((code) => code !== stays)]);
  });
  private readonly description = computed(() => ({ ...this.proposed(), ...this.edited() }));
  protected readonly fields = computed(() =>
    DESCRIPTION_LABELS.map(([key, label]) => ({ key, label, text: this.description()[key] ?? '' })).filter(
      // one that was emptied here stays, to be written in again
      (field) => field.text !== '' || field.key === 'definition' || field.key in this.edited(),
    ),
  );

  /** The join as it would be now, worked out while its dialog is read. */
  private ahead: JoinAhead | undefined;

  constructor() {
    effect((onCleanup) => {
      const ahead = new JoinAhead({ passages: this.allPassages() }, this.staysId(), this.ids());
      this.ahead = ahead;
      let timer = setTimeout(function goOn() {
        if (ahead.step(AHEAD_AT_ONCE)) timer = setTimeout(goOn);
      }, 100);
      onCleanup(() => clearTimeout(timer));
    });
  }

  /** @returns the code that stays, or null for cancel */
  static async open(dialog: MatDialog, ids: readonly Id[]): Promise<Id | null> {
    const opened = dialog.open<JoinDialog, readonly Id[], Id>(JoinDialog, { data: ids, width: '560px' });
    return (await firstValueFrom(opened.afterClosed())) ?? null;
  }

  protected passagesOf(id: Id): number | null {
    return howOften(this.counts(), 'own', id);
  }

  protected say(key: keyof JoinedDescription, text: string): void {
    this.edited.update((edited) => ({ ...edited, [key]: text }));
  }

  protected join(): void {
    if (this.session.run(joinCodes(this.staysId(), this.ids(), this.description(), this.ahead))) this.dialog.close(this.staysId());
  }
}
