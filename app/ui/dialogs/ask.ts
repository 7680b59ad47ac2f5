import { ChangeDetectionStrategy, Component, type ElementRef, inject, Injectable, signal, viewChild } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';
import type { DraftOf } from '../../state/drafts';
import { Writing } from '../writing/writing';

/** A question to the researcher before something is done. */
export interface Question {
  readonly title: string;
  /** What it means, line by line. */
  readonly lines: readonly string[];
  /** The word on the button that goes on. */
  readonly yes: string;
  readonly danger?: boolean;
  /** Asks for a line of text, beginning with this. */
  readonly text?: string;
  readonly label?: string;
  /** Room for several lines; they are a draft of this until they are kept. */
  readonly long?: DraftOf;
  /** Does what was asked with the text. @returns why it was refused, and then the question stays open with what was typed, or null */
  readonly tries?: (text: string) => string | null;
  /** Another way, beside yes and cancel. */
  readonly other?: string;
}

/** What was chosen, with the text where one was asked for; null for cancel. */
export type Reply = { readonly chose: 'yes' | 'other'; readonly text: string } | null;

@Component({
  selector: 'fl-ask-dialog',
  imports: [MatDialogModule, Writing],
  template: `
    <form (submit)="$event.preventDefault(); close('yes')">
      <h2 mat-dialog-title>{{ data.title }}</h2>
      <mat-dialog-content>
        @for (line of data.lines; track line) {
          <p>{{ line }}</p>
        }
        @if (data.long; as long) {
          <label class="field"
            ><span>{{ data.label }}</span
            ><textarea #box rows="6" cdkFocusInitial [flWriting]="long.what" [of]="long.of" [stored]="data.text ?? ''"></textarea>
          </label>
        } @else if (data.text !== undefined) {
          <label class="field"
            ><span>{{ data.label }}</span
            ><input #box [value]="data.text" cdkFocusInitial autocomplete="off"
          /></label>
        }
        @if (refusal()) {
          <p class="writing-note" role="alert">{{ refusal() }}</p>
        }
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button type="button" class="do quiet" mat-dialog-close>Cancel</button>
        @if (data.other) {
          <button type="button" class="do quiet" (click)="close('other')">{{ data.other }}</button>
        }
        <button type="submit" class="do" [class.danger]="data.danger">{{ data.yes }}</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    p + p {
      margin-top: 6px;
    }
    .field {
      margin-top: 8px;
    }
    mat-dialog-actions {
      gap: 8px;
      padding: 12px 24px 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class AskDialog {
  protected readonly data = inject<Question>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<AskDialog, Reply>>(MatDialogRef);
  private readonly box = viewChild<ElementRef<HTMLInputElement | HTMLTextAreaElement>>('box');
  private readonly writing = viewChild(Writing);
  protected readonly refusal = signal<string | null>(null);

  protected close(chose: 'yes' | 'other'): void {
    const text = this.box()?.nativeElement.value ?? '';
    if (chose === 'yes') this.refusal.set(this.data.tries?.(text) ?? null);
    if (this.refusal() !== null) return;
    this.writing()?.done();
    this.dialog.close({ chose, text });
  }
}

/** Asks before something is done that should not happen by accident, or for a name. */
@Injectable({ providedIn: 'root' })
export class Ask {
  private readonly dialog = inject(MatDialog);

  /** The full reply, or null for cancel. */
  async reply(question: Question): Promise<Reply> {
    const opened = this.dialog.open<AskDialog, Question, Reply>(AskDialog, { data: question, width: '460px' });
    return (await firstValueFrom(opened.afterClosed())) ?? null;
  }

  /** Whether to go on. */
  async confirm(question: Question): Promise<boolean> {
    return (await this.reply(question))?.chose === 'yes';
  }

  /**
   * A line of text that something is done with at once: what is refused stays in its field, with the reason beside it.
   * @returns what was typed and done, or null for cancel
   */
  async keep(title: string, label: string, text: string, yes: string, tries: (text: string) => string | null): Promise<string | null> {
    return (await this.reply({ title, lines: [], label, text, yes, tries }))?.text ?? null;
  }
}
