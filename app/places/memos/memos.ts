import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { addMemoEntry, deleteMemo, editMemo, editMemoEntry } from '@core/change/commands/memos';
import { fold } from '@core/codebook/find-codes';
import type { Id } from '@core/model/ids';
import type { Memo } from '@core/model/memo';
import { StudySession } from '../../state/study-session';
import { selectCases, selectCoders, selectCodes, selectDocuments, selectMemos, selectStudy } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { Icon } from '../../ui/icon/icon';
import { Prose } from '../../ui/memo/prose';
import { MemoDialog } from '../../ui/memo/memo-dialog';

/** All of the researcher's own writing. */
@Component({
  selector: 'fl-memos',
  imports: [DatePipe, RouterLink, Icon, Prose],
  templateUrl: './memos.html',
  styleUrl: './memos.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Memos {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly ask = inject(Ask);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly table = this.store.selectSignal(selectMemos);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly cases = this.store.selectSignal(selectCases);
  protected readonly coders = this.store.selectSignal(selectCoders);
  protected readonly typed = signal('');
  protected readonly kind = signal('');
  private readonly chosenId = signal<Id | null>(null);
  protected readonly editing = signal<Id | null>(null);

  private readonly all = computed(() => Object.values(this.table()).sort((a, b) => lastWritten(b) - lastWritten(a)));
  protected readonly total = computed(() => this.all().length);
  protected readonly kinds = computed(() => [...new Set(this.all().map((memo) => memo.kind))].sort());
  protected readonly memos = computed(() => {
    const typed = fold(this.typed().trim());
    return this.all().filter(
      (memo) =>
        (!this.kind() || memo.kind === this.kind()) &&
        fold(`${memo.title} ${memo.entries.map((entry) => entry.text).join(' ')}`).includes(typed),
    );
  });
  protected readonly chosen = computed(() => this.table()[this.chosenId() ?? ''] ?? this.memos()[0]);
  protected readonly last = lastWritten;

  /** What a memo is about, in words. */
  protected aboutWords(memo: Memo): string {
    switch (memo.about?.type) {
      case 'code':
        return this.codes()[memo.about.id]?.name ?? '';
      case 'document':
        return this.documents()[memo.about.id]?.title ?? '';
      case 'passage':
        return `a passage in ${this.documents()[memo.about.documentId]?.title ?? ''}`;
      case 'case':
        return this.cases()[memo.about.id]?.name ?? '';
      default:
        return '';
    }
  }

  protected goToSubject(memo: Memo): void {
    const base = ['/study', this.study()!.id];
    const { about } = memo;
    if (about?.type === 'passage')
      void this.router.navigate([...base, 'reading', about.documentId], { queryParams: { passage: about.id, from: 'the memo' } });
    if (about?.type === 'document') void this.router.navigate([...base, 'reading', about.id], { queryParams: { from: 'the memo' } });
    if (about?.type === 'code') void this.router.navigate([...base, 'codebook']);
  }

  protected choose(id: Id): void {
    this.chosenId.set(id);
    this.editing.set(null);
  }

  protected add(): void {
    void MemoDialog.open(this.dialog, { about: null });
  }

  protected rename(memo: Memo, title: string, kind: string): void {
    this.session.run(editMemo(memo.id, { title, kind }));
  }

  protected writeOn(memo: Memo, box: HTMLTextAreaElement): void {
    if (this.session.run(addMemoEntry(memo.id, box.value))) box.value = '';
  }

  protected keepEntry(memo: Memo, entryId: Id, text: string): void {
    this.session.run(editMemoEntry(memo.id, entryId, text));
    this.editing.set(null);
  }

  protected async remove(memo: Memo): Promise<void> {
    const entries = `${memo.entries.length} ${memo.entries.length === 1 ? 'entry' : 'entries'}`;
    if (
      await this.ask.confirm({
        title: `Delete “${memo.title}”?`,
        lines: [`This takes away the memo with ${entries}. It can be undone.`],
        yes: 'Delete the memo',
        danger: true,
      })
    )
      this.session.run(deleteMemo(memo.id));
  }
}

function lastWritten(memo: Memo): number {
  return memo.entries.at(-1)?.writtenAt ?? memo.createdAt;
}
