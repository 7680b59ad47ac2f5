import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import { addSet } from '@core/commands/sets';
import type { Id } from '@core/model/ids';
import { counted } from '@core/text/counted';
import { StudySession } from '../../state/study-session';
import { selectData, selectStudy } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { Ask } from '../../ui/dialogs/ask';
import { Icon } from '../../ui/icon/icon';

/** The cases or documents that a number counts. */
export interface Members {
  readonly of: 'case' | 'document';
  readonly title: string;
  readonly ids: readonly Id[];
}

/** Cases or documents behind a number, beside the pattern, each leading to itself. */
@Component({
  selector: 'fl-members-side',
  imports: [Icon],
  template: `
    <header>
      <h2 dir="auto">{{ members().title }}</h2>
      <button class="icon" (click)="closed.emit()" aria-label="Close the evidence"><fl-icon name="x" /></button>
      <p class="second" data-behind>{{ words() }}</p>
      @if (members().ids.length > 0) {
        <p class="acts"><button class="act" (click)="makeSet()">Make a set</button></p>
      }
    </header>
    <ul>
      @for (one of named(); track one.id) {
        <li>
          <button (click)="open(one.id)" dir="auto">{{ one.name }}</button>
        </li>
      } @empty {
        <li class="second">Nobody is there.</li>
      }
    </ul>
  `,
  styleUrl: './evidence-side.scss',
  styles: `
    ul {
      padding: 8px 18px;
    }
    li button {
      min-height: 26px;
      text-align: left;
    }
    li button:hover {
      color: var(--accent);
    }
  `,
  host: { role: 'complementary', 'aria-label': 'Evidence', '(keydown.escape)': 'closed.emit()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MembersSide {
  readonly members = input.required<Members>();
  readonly closed = output<void>();
  private readonly ways = inject(Ways);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly store = inject(Store);
  private readonly data = this.store.selectSignal(selectData);
  private readonly study = this.store.selectSignal(selectStudy);
  protected readonly words = computed(() => {
    const { of, ids } = this.members();
    return counted(ids.length, of === 'case' ? (this.study()?.caseWord ?? 'case') : 'document');
  });
  protected readonly named = computed(() => {
    const { of, ids } = this.members();
    const { case: cases = {}, document: documents = {} } = this.data()?.tables ?? {};
    return ids.map((id) => ({ id, name: (of === 'case' ? cases[id]?.name : documents[id]?.title) ?? 'gone' }));
  });

  protected open(id: Id): void {
    if (this.members().of === 'case') this.ways.go(['material'], { queryParams: { view: 'cases', caseId: id } });
    else this.ways.go(['reading', id], { queryParams: { from: 'the pattern' } });
  }

  protected async makeSet(): Promise<void> {
    const { of, ids, title } = this.members();
    await this.ask.keep(
      `Make a set of ${this.words()}`,
      'Name of the set',
      title.slice(0, 200),
      'Make the set',
      (name) => this.session.attempt(addSet(of, name, [...ids])).refused,
    );
  }
}
