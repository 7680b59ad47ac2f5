import { ChangeDetectionStrategy, Component, input, output, viewChildren } from '@angular/core';
import { Writing } from '../../ui/writing/writing';

/** An entry of the log while it is being written. */
export interface EntryDraft {
  /** `YYYY-MM-DD` */
  readonly day: string;
  readonly text: string;
  /** With commas between. */
  readonly tags: string;
}

/** The researcher's own entry in the log: a decision, a meeting. */
@Component({
  selector: 'fl-entry-form',
  imports: [Writing],
  template: `
    <form (submit)="$event.preventDefault(); kept.emit({ day: day.value, text: text.value, tags: tags.value })">
      <label class="field"
        ><span>Day</span><input #day type="date" required flWriting="log entry, day" [of]="of()" [stored]="draft().day"
      /></label>
      <label class="field"
        ><span>Tags, with commas between</span
        ><input #tags autocomplete="off" flWriting="log entry, tags" [of]="of()" [stored]="draft().tags"
      /></label>
      <label class="field wide"
        ><span>What was decided, discussed, noticed</span
        ><textarea #text rows="4" flWriting="log entry" [of]="of()" [stored]="draft().text"></textarea>
      </label>
      @if (refusal()) {
        <p class="wide writing-note" role="alert">{{ refusal() }}</p>
      }
      <p class="wide">
        <button type="submit" class="do">Keep</button>
        <button type="button" class="do quiet" (click)="drop(); left.emit()">Cancel</button>
        @if (there()) {
          <button type="button" class="act danger" (click)="removed.emit()">Take it out</button>
        }
      </p>
    </form>
  `,
  styles: `
    form {
      display: grid;
      grid-template-columns: 160px 1fr;
      gap: 8px 12px;
      max-width: 680px;
      padding: 14px 20px;
    }
    .wide {
      grid-column: 1 / -1;
      display: grid;
    }
    p.wide {
      display: flex;
      gap: 10px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EntryForm {
  readonly draft = input.required<EntryDraft>();
  /** The entry that is edited, or `new`: drafts are kept under it. */
  readonly of = input('new');
  /** Why it could not be kept. */
  readonly refusal = input<string | null>(null);
  /** It is in the log already. */
  readonly there = input(false);
  readonly kept = output<EntryDraft>();
  readonly left = output<void>();
  readonly removed = output<void>();
  private readonly fields = viewChildren(Writing);

  /** What is typed here is kept, or given up: no draft is left. */
  drop(): void {
    for (const field of this.fields()) field.done();
  }
}
