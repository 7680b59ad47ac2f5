import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { selectData } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { MakeSet } from './make-set';
import { SideHead } from './side-head';

/** The cases or documents that a number counts. */
export interface Members {
  readonly of: 'case' | 'document';
  readonly title: string;
  readonly ids: readonly Id[];
}

/** Cases or documents behind a number, beside the pattern, each leading to itself. */
@Component({
  selector: 'fl-members-side',
  imports: [SideHead],
  template: `
    <fl-side-head [title]="members().title" [where]="words()" (closed)="closed.emit()">
      @if (members().ids.length > 0) {
        <button class="act" (click)="makeSet()">Make a set</button>
      }
    </fl-side-head>
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
  private readonly sets = inject(MakeSet);
  private readonly data = inject(Store).selectSignal(selectData);
  protected readonly words = computed(() => this.sets.words(this.members().of, this.members().ids.length));
  protected readonly named = computed(() => {
    const { of, ids } = this.members();
    const { case: cases = {}, document: documents = {} } = this.data()?.tables ?? {};
    return ids.map((id) => ({ id, name: (of === 'case' ? cases[id]?.name : documents[id]?.title) ?? 'gone' }));
  });

  protected open(id: Id): void {
    if (this.members().of === 'case') this.ways.go(['material'], { queryParams: { view: 'cases', caseId: id } });
    else this.ways.go(['reading', id], { queryParams: { from: 'the pattern' } });
  }

  protected makeSet(): void {
    const { of, ids, title } = this.members();
    void this.sets.of(of, ids, title);
  }
}
