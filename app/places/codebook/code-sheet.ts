import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { editCode, moveCode, type CodeFields } from '@core/change/commands/codes';
import { FAMILY_SIZE, type Code } from '@core/model/code';
import { FAMILY_NAMES } from '@core/model/palette';
import { lineage } from '@core/passages/counting';
import { StudySession } from '../../state/study-session';
import { selectCodeCounts, selectCodeRows, selectCodes, selectMemos } from '../../state/study.selectors';
import { Icon } from '../../ui/icon/icon';
import { MemoDialog } from '../../ui/memo/memo-dialog';

/** One code: its name, mark, colour, description, where it lies, and memos about it. Fields are kept when they are left. */
@Component({
  selector: 'fl-code-sheet',
  imports: [Icon],
  templateUrl: './code-sheet.html',
  styleUrl: './code-sheet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeSheet {
  readonly code = input.required<Code>();
  readonly addUnder = output<void>();
  readonly remove = output<void>();

  private readonly session = inject(StudySession);
  private readonly dialog = inject(MatDialog);
  private readonly store = inject(Store);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly rows = this.store.selectSignal(selectCodeRows);
  private readonly counts = this.store.selectSignal(selectCodeCounts);
  private readonly memoTable = this.store.selectSignal(selectMemos);
  protected readonly memos = computed(() =>
    Object.values(this.memoTable()).filter((memo) => memo.about?.type === 'code' && memo.about.id === this.code().id),
  );
  protected readonly own = computed(() => this.counts().own.get(this.code().id) ?? 0);
  /** Places it can be put: every code that is not itself or under it. */
  protected readonly parents = computed(() => this.rows().filter((row) => !lineage(this.codes(), row.code.id).includes(this.code().id)));
  protected readonly families = FAMILY_NAMES.map((name, family) => ({
    name,
    colours: Array.from({ length: FAMILY_SIZE }, (_, member) => family * FAMILY_SIZE + member),
  }));
  protected readonly prose: readonly {
    readonly key: 'definition' | 'useWhen' | 'doNotUseWhen' | 'example';
    readonly name: string;
    readonly rows: number;
  }[] = [
    { key: 'definition', name: 'Definition', rows: 4 },
    { key: 'useWhen', name: 'Use when', rows: 2 },
    { key: 'doNotUseWhen', name: 'Do not use when', rows: 3 },
    { key: 'example', name: 'Example', rows: 2 },
  ];

  /** Keeps a field that was left; a refused value is put back. */
  protected edit(fields: CodeFields, box?: HTMLInputElement): void {
    this.session.run(editCode(this.code().id, fields));
    const now = this.codes()[this.code().id];
    if (box && now) box.value = box.name === 'mark' ? now.mark : now.name;
  }

  protected editProse(key: 'definition' | 'useWhen' | 'doNotUseWhen' | 'example', text: string): void {
    this.edit({ [key]: text });
  }

  protected move(parentId: string): void {
    this.session.run(moveCode(this.code().id, parentId || null, Infinity));
  }

  protected memo(memoId: string | null): void {
    void MemoDialog.open(this.dialog, memoId ? { memoId } : { about: { type: 'code', id: this.code().id } });
  }
}
