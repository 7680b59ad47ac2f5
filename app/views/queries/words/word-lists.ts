import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChildren } from '@angular/core';
import { type MatDialog, MatDialogModule } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { addWordList, deleteWordList, editWordList } from '@core/commands/word-lists';
import type { Id } from '@core/model/ids';
import { naturalOrder } from '@core/text/natural-order';
import { StudySession } from '../../../state/study-session';
import { selectData } from '../../../state/study.selectors';
import { Icon } from '../../../ui/icon/icon';
import { Writing } from '../../../ui/writing/writing';

/** Words that stand for one thing: made, changed, and taken into what is looked for by their name in brackets. */
@Component({
  selector: 'fl-word-lists',
  imports: [Icon, MatDialogModule, Writing],
  templateUrl: './word-lists.html',
  styleUrl: '../../../ui/glossary/glossary.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WordLists {
  private readonly session = inject(StudySession);
  private readonly data = inject(Store).selectSignal(selectData);
  private readonly fields = viewChildren(Writing);
  private readonly table = computed(() => this.data()?.tables.wordList ?? {});
  protected readonly lists = computed(() => naturalOrder(Object.values(this.table()), (list) => list.name));
  private readonly currentId = signal<Id | null>(null);
  protected readonly current = computed(() => this.table()[this.currentId() ?? ''] ?? null);
  /** What the fields belong to: a list there is, or the one that is being made. */
  protected readonly of = computed(() => this.current()?.id ?? 'new');
  protected readonly refusal = signal<string | null>(null);

  /** Opens over the place. @returns the name of a list that is to be looked for, or undefined */
  static open(dialog: MatDialog): Promise<string | undefined> {
    const opened = dialog.open<WordLists, void, string>(WordLists, { width: '620px', ariaLabel: 'Word lists' });
    return new Promise((resolve) => opened.afterClosed().subscribe(resolve));
  }

  protected choose(id: Id | null): void {
    this.refusal.set(null);
    this.currentId.set(id);
  }

  protected keep(name: string, words: string): void {
    const fields = { name, words: words.split(/[\n,]/) };
    const current = this.current();
    const { refused } = this.session.attempt(current ? editWordList(current.id, fields) : addWordList(fields));
    this.refusal.set(refused);
    if (refused !== null) return;
    for (const field of this.fields()) field.done();
    this.currentId.set(this.lists().find((list) => list.name.toLocaleLowerCase() === name.trim().toLocaleLowerCase())?.id ?? null);
  }

  protected remove(id: Id): void {
    for (const field of this.fields()) field.done();
    this.session.run(deleteWordList(id));
    this.currentId.set(null);
  }
}
