import { quoted } from '@core/text/quoted';
import { standingOn } from '@core/integrity/standing-on';
import { counted } from '@core/text/counted';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { deleteMemo, editMemo, linkMemo, type MemoFields } from '@core/commands/memos';
import { nameOfSubject } from '@core/memos/name-of-subject';
import { isAbout, subjectsOf } from '@core/memos/references';
import { referencesIn, type Reference } from '@core/model/address';
import type { Id } from '@core/model/ids';
import type { Memo, MemoSubject } from '@core/model/memo';
import { Notices } from '../../state/notices';
import { StudySession } from '../../state/study-session';
import { selectCases, selectCoders, selectData, selectMemos, selectSortedDocuments } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { Writing, type Keeping } from '../../ui/writing/writing';
import { Icon } from '../../ui/icon/icon';
import { MemoNames } from '../../ui/memo/memo-names';
import { Prose } from '../../ui/memo/prose';
import { WritingDesk } from '../../ui/memo/writing-desk';
import { ChooseCode } from '../../ui/picker/choose-code';

/** One memo: its heading and signs, what it is linked to, and its entries under their dates. */
@Component({
  selector: 'fl-memo-sheet',
  imports: [DatePipe, Icon, MatMenuModule, Prose, Writing],
  templateUrl: './memo-sheet.html',
  styleUrl: './memo-sheet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MemoSheet {
  readonly memo = input.required<Memo>();
  /** Of its kind: an entry of the palette. */
  readonly colour = input.required<number>();

  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly dialog = inject(MatDialog);
  private readonly desk = inject(WritingDesk);
  private readonly names = inject(MemoNames);
  private readonly notices = inject(Notices);
  private readonly data = this.store.selectSignal(selectData);
  private readonly memos = this.store.selectSignal(selectMemos);
  protected readonly coders = this.store.selectSignal(selectCoders);
  protected readonly documents = this.store.selectSignal(selectSortedDocuments);
  private readonly caseTable = this.store.selectSignal(selectCases);
  protected readonly cases = computed(() => Object.values(this.caseTable()).sort((a, b) => a.name.localeCompare(b.name)));
  protected readonly links = computed(() =>
    subjectsOf(this.memo()).map((subject) => ({ subject, name: nameOfSubject(this.data()!, subject) })),
  );
  /** Other memos whose text links to this one. */
  protected readonly linkedFrom = computed(() =>
    Object.values(this.memos()).filter((other) =>
      other.entries.some(
        (entry) =>
          entry.text.includes(this.memo().id) && referencesIn(entry.text).some((one) => one.type === 'memo' && one.id === this.memo().id),
      ),
    ),
  );

  protected readonly keepField: Keeping = (text, memoId, what) =>
    this.session.attempt(editMemo(memoId, what === 'tags' ? { tags: text.split(',') } : { [what]: text })).refused;

  protected edit(fields: MemoFields): void {
    this.session.run(editMemo(this.memo().id, fields));
  }

  protected writeOn(entryId?: Id): void {
    void this.desk.open(entryId ? { memoId: this.memo().id, entryId } : { memoId: this.memo().id });
  }

  protected goTo(reference: Reference): void {
    this.names.goTo(reference);
  }

  protected unlink(subject: MemoSubject): void {
    this.session.run(linkMemo(this.memo().id, subject, false));
  }

  protected link(subject: MemoSubject): void {
    if (isAbout(this.memo(), subject.type, subject.id)) return this.notices.say('It is linked to that already.');
    this.session.run(linkMemo(this.memo().id, subject, true));
  }

  protected async linkCode(): Promise<void> {
    const chosen = await ChooseCode.open(this.dialog, { title: `Link ${quoted(this.memo().title)} to a code` });
    if (chosen && 'codeId' in chosen) this.link({ type: 'code', id: chosen.codeId });
  }

  protected async toDocument(): Promise<void> {
    const { memoToDocument } = await import('@core/material/memo-to-document');
    const action = this.session.run(memoToDocument(this.memo().id));
    if (action) this.notices.say('It is a document now, under Material, and linked to this memo.');
  }

  protected async remove(): Promise<void> {
    const { title, entries, id } = this.memo();
    const yes = await this.ask.confirm({
      title: `Delete ${quoted(title)}?`,
      lines: [
        `This takes away the memo with ${counted(entries.length, 'entry', 'entries')}.`,
        ...standingOn(this.data()!, 'memo', [id]),
        'It can be undone.',
      ],
      yes: 'Delete the memo',
      danger: true,
    });
    if (yes) this.session.run(deleteMemo(id));
  }
}
