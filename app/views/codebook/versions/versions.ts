import { Counted } from '../../../ui/counted/counted';
import { ChangeDetectionStrategy, Component, computed, inject, resource, signal } from '@angular/core';
import { DatePipe } from '@angular/common';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { codebookBefore, compareCodebooks, type CodeDifference } from '@core/codebook/versions';
import { inTreeOrder } from '@core/codebook/tree';
import { endOfDay } from '@core/log/group-log';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Table } from '@core/model/study-state';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectStudy } from '../../../state/study.selectors';
import { Swatch } from '../../../ui/swatch/swatch';

const ORDER: readonly CodeDifference['kind'][] = ['added', 'removed', 'renamed', 'moved', 'redefined', 'retired', 'in use again'];

/** Two codebooks in time, side by side: what was added, removed, renamed, moved, redefined. */
@Component({
  selector: 'fl-versions',
  imports: [Counted, DatePipe, Swatch],
  templateUrl: './versions.html',
  styleUrl: './versions.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Versions {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly router = inject(Router);
  private readonly codes = this.store.selectSignal(selectCodes);
  protected readonly study = this.store.selectSignal(selectStudy);
  /** Entries that changed codes, the newest first. */
  private readonly entries = resource({ params: () => this.codes(), loader: () => this.session.touching('codebook') });
  protected readonly known = computed(() => (this.entries.hasValue() ? this.entries.value() : []));
  /** Times to choose from: before each day on which codes were changed, and after the last. */
  protected readonly days = computed(() => [...new Set(this.known().map((entry) => startOfDay(entry.at)))].sort((a, b) => a - b));
  private readonly fromPicked = signal<number | null>(null);
  protected readonly toPicked = signal<number | null>(null);
  protected readonly from = computed(() => this.fromPicked() ?? this.days().at(-1) ?? 0);
  private readonly before = computed(() => this.at(this.from()));
  private readonly after = computed(() => (this.toPicked() === null ? this.codes() : this.at(this.toPicked()!)));
  protected readonly counts = computed(() => ({ before: Object.keys(this.before()).length, after: Object.keys(this.after()).length }));
  protected readonly differences = computed(() => compareCodebooks(this.before(), this.after()));
  protected readonly groups = computed(() =>
    ORDER.map((kind) => ({ kind, some: this.differences().filter((one) => one.kind === kind) })).filter((group) => group.some.length > 0),
  );
  protected readonly trees = computed(() => {
    const [before, after] = [this.before(), this.after()];
    const changed = new Map(this.differences().map((one) => [(one.after ?? one.before)!.id, one.kind]));
    return [
      { name: 'then', rows: inTreeOrder(before).slice(0, 2_000), changed },
      { name: 'now', rows: inTreeOrder(after).slice(0, 2_000), changed },
    ];
  });

  /** The codebook as it stood at a time. */
  private at(time: number): Table<Code> {
    return codebookBefore(
      this.codes(),
      this.known().filter((entry) => entry.at >= time),
    );
  }

  protected setFrom(value: string): void {
    this.fromPicked.set(Number(value));
  }

  protected setTo(value: string): void {
    this.toPicked.set(value === '' ? null : endOfDay(Number(value)));
  }

  protected place(code: Code | null, in_: 'before' | 'after'): string {
    const codes = in_ === 'before' ? this.before() : this.after();
    return code?.parentId ? (codes[code.parentId]?.name ?? 'a code that is gone') : 'the top';
  }

  protected open(id: Id): void {
    if (Object.hasOwn(this.codes(), id)) void this.router.navigate([], { queryParams: { code: id } });
  }
}

function startOfDay(time: number): number {
  const day = new Date(time);
  day.setHours(0, 0, 0, 0);
  return day.getTime();
}
