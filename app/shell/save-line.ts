import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { StudySession } from '../state/study-session';
import { selectAllSaved, selectHistory, selectRole, selectSave } from '../state/study.selectors';

/** Says whether all that was done is on disk. "Saved" appears only after the browser has said so itself. */
@Component({
  selector: 'fl-save-line',
  imports: [DatePipe],
  template: `
    @if (save().trouble; as trouble) {
      <span class="not" role="alert">
        not saved: {{ history().seq - save().through }} {{ history().seq - save().through === 1 ? 'step' : 'steps' }}
        <button class="act danger" (click)="session.retry()" [title]="trouble">Try again</button>
      </span>
    } @else if (role() === 'follower') {
      <span data-save="following">following</span>
    } @else if (!allSaved()) {
      <span data-save="saving">saving…</span>
    } @else {
      <span data-save="saved" [attr.data-through]="save().through">saved{{ save().at ? ' ' + (save().at | date: 'HH:mm') : '' }}</span>
    }
  `,
  styles: `
    :host {
      color: var(--ink-second);
      white-space: nowrap;
      padding-right: 8px;
    }
    .not {
      color: var(--danger);
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SaveLine {
  protected readonly session = inject(StudySession);
  private readonly store = inject(Store);
  protected readonly save = this.store.selectSignal(selectSave);
  protected readonly history = this.store.selectSignal(selectHistory);
  protected readonly role = this.store.selectSignal(selectRole);
  protected readonly allSaved = this.store.selectSignal(selectAllSaved);
}
