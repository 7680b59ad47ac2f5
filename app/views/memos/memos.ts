import { WholeStudy } from '../../ui/whole-study';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { selectMemos } from '../../state/study.selectors';
import { Icon } from '../../ui/icon/icon';
import { WritingDesk } from '../../ui/memo/writing-desk';
import { BegunMemos } from './begun-memos';
import { MemoImport } from './memo-import';
import { MemoList } from './memo-list';
import { MemoTabs } from './memo-tabs';
import { OpenQuestions } from './open-questions';

/** All of the researcher's own writing: memos, questions to come back to, and memos brought in. */
@Component({
  selector: 'fl-memos',
  imports: [RouterLink, BegunMemos, Icon, MemoImport, MemoList, MemoTabs, OpenQuestions, WholeStudy],
  template: `
    <div class="place">
      <header class="place-head">
        <h1>Memos</h1>
        <fl-memo-tabs [here]="shown()" />
        <fl-whole-study />
        <div class="end">
          <a class="act" routerLink="." [queryParams]="{ view: 'import' }">Bring in</a>
          <button class="do" (click)="add()"><fl-icon name="plus" />New memo</button>
        </div>
      </header>
      @switch (shown()) {
        @case ('todo') {
          <fl-open-questions />
        }
        @case ('import') {
          <fl-memo-import />
        }
        @default {
          <div class="all">
            <fl-begun-memos />
            @if (total() === 0) {
              <div class="empty">
                <strong>No memos yet</strong>
                <p>
                  Here you think on paper: about a code, a document, a passage, or nothing in particular. Each entry keeps its date. The key
                  <kbd>M</kbd> opens one beside whatever you are looking at; <kbd>&#64;</kbd> in it links to other things.
                </p>
              </div>
            } @else {
              <fl-memo-list [memo]="memo()" />
            }
          </div>
        }
      }
    </div>
  `,
  styles: `
    .all {
      display: flex;
      flex-direction: column;
      min-height: 0;
    }
    fl-memo-list {
      flex: 1;
    }
    .do {
      --icon-size: 16px;
    }
    a.act {
      text-decoration: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Memos {
  /** From the address: which part is shown. */
  readonly view = input<string>();
  /** From the address: the memo that is shown first. */
  readonly memo = input<string>();
  private readonly store = inject(Store);
  private readonly desk = inject(WritingDesk);
  private readonly table = this.store.selectSignal(selectMemos);
  protected readonly total = computed(() => Object.keys(this.table()).length);
  protected readonly shown = computed(() => (this.view() === 'todo' || this.view() === 'import' ? this.view()! : 'memos'));

  protected add(): void {
    void this.desk.open({ about: null });
  }
}
