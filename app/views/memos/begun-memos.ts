import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { memoDrafts } from '../../state/memo-drafts';
import { selectStudy } from '../../state/study.selectors';
import { WritingDesk } from '../../ui/memo/writing-desk';

/** Memos that were begun at the desk and neither kept nor dropped, with the way back to each. */
@Component({
  selector: 'fl-begun-memos',
  template: `
    @for (draft of begun(); track $index) {
      <p class="second" role="status">
        Begun and not kept: {{ draft.title || draft.text.slice(0, 60) }}
        <button class="act small" (click)="desk.open(draft.task)">Go on</button>
      </p>
    }
  `,
  styles: `
    p {
      padding: 6px 18px;
      background: var(--accent-ground);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BegunMemos {
  protected readonly desk = inject(WritingDesk);
  private readonly study = inject(Store).selectSignal(selectStudy);
  protected readonly begun = computed(() => {
    const study = this.study();
    const open = JSON.stringify(this.desk.task());
    return study ? memoDrafts.all(study.id).filter((draft) => JSON.stringify(draft.task) !== open) : [];
  });
}
