import { DatePipe } from '@angular/common';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { Store } from '@ngrx/store';
import type { Editor } from '@tiptap/core';
import { addMemo, addMemoEntry, editMemo, editMemoEntry } from '@core/change/commands/memos';
import { together } from '@core/change/together';
import { MEMO_KINDS } from '@core/model/memo';
import { nameOfSubject } from '@core/memos/exchange/memo-tables';
import { addressOf, subjectsOf } from '@core/memos/references';
import { passageOf } from '@core/passages/columns';
import { Notices } from '../../state/notices';
import { memoDrafts, type MemoDraft, type MemoTask } from '../../state/memo-drafts';
import { StudySession } from '../../state/study-session';
import { selectCoders, selectData, selectMemos, selectStudy } from '../../state/study.selectors';
import { TextCache } from '../../state/text-cache';
import { Icon } from '../icon/icon';
import { MemoNames } from './memo-names';
import { Prose } from './prose';
import { WritingDesk } from './writing-desk';

/** Milliseconds without a key before what is written is kept as a draft. */
const REST = 400;

/** Writing a memo beside what it is about. */
@Component({
  selector: 'fl-desk',
  imports: [DatePipe, Icon, Prose],
  templateUrl: './desk.html',
  styleUrl: './desk.scss',
  host: {
    role: 'region',
    'aria-label': 'Writing',
    '(keydown.control.enter)': 'keep(); $event.preventDefault()',
    '(keydown.meta.enter)': 'keep(); $event.preventDefault()',
    '(keydown.escape)': 'leave(); $event.stopPropagation()',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Desk {
  readonly task = input.required<MemoTask>();

  private readonly desk = inject(WritingDesk);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly names = inject(MemoNames);
  private readonly texts = inject(TextCache);
  private readonly store = inject(Store);
  private readonly data = this.store.selectSignal(selectData);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly memos = this.store.selectSignal(selectMemos);
  protected readonly coders = this.store.selectSignal(selectCoders);
  private readonly place = viewChild.required<ElementRef<HTMLElement>>('place');
  private readonly titleBox = viewChild<ElementRef<HTMLInputElement>>('titleBox');
  private editor: Editor | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private closed = false;

  /** The draft that was begun for the same task, if there is one. */
  private readonly begun = this.findDraft();
  protected readonly memo = computed(() => {
    const task = this.task();
    return 'memoId' in task ? this.memos()[task.memoId] : undefined;
  });
  protected readonly editing = computed(() => {
    const task = this.task();
    return 'memoId' in task && task.entryId ? this.memo()?.entries.find((entry) => entry.id === task.entryId) : undefined;
  });
  protected readonly title = linkedSignal(() => this.memo()?.title ?? this.begun?.title ?? '');
  protected readonly kind = linkedSignal(() => this.memo()?.kind ?? this.begun?.kind ?? 'analytic');
  protected readonly tags = linkedSignal(() => this.memo()?.tags?.join(', ') ?? this.begun?.tags ?? '');
  protected readonly question = linkedSignal(() => (this.memo() ? this.memo()!.question === 'open' : (this.begun?.question ?? false)));
  protected readonly ready = signal(false);
  protected readonly kinds = computed(() => [...new Set([...MEMO_KINDS, ...Object.values(this.memos()).map((memo) => memo.kind)])]);
  protected readonly about = computed(() => {
    const task = this.task();
    const subjects = 'about' in task ? (task.about ? [task.about] : []) : this.memo() ? subjectsOf(this.memo()!) : [];
    return subjects.map((subject) => (this.data() && nameOfSubject(this.data()!, subject)) ?? 'something that is gone').join(', ');
  });
  protected readonly passage = computed(() => {
    const task = this.task();
    const subject = 'about' in task ? task.about : (this.memo()?.about ?? null);
    return subject?.type === 'passage' ? subject : null;
  });

  constructor() {
    afterNextRender(() => void this.start());
    inject(DestroyRef).onDestroy(() => {
      // what is on the desk when it goes otherwise than by its own buttons is not lost
      if (!this.closed) this.keepDraft();
      clearTimeout(this.timer);
      this.editor?.destroy();
    });
  }

  private findDraft(): MemoDraft | null {
    const studyId = this.study()?.id;
    const draft = studyId ? memoDrafts.of(studyId) : null;
    const task = this.desk.task();
    return draft && JSON.stringify(draft.task) === JSON.stringify(task) ? draft : null;
  }

  private async start(): Promise<void> {
    const { makeRichText } = await import('./rich-text');
    if (this.closed) return;
    this.editor = makeRichText({
      element: this.place().nativeElement,
      text: this.begun?.text ?? this.editing()?.text ?? '',
      offers: (typed) => this.names.offers(typed),
      changed: () => this.touch(),
    });
    this.ready.set(true);
    if (!this.memo() && !this.begun) this.titleBox()?.nativeElement.focus();
    else this.editor.commands.focus('end');
  }

  /** What is written goes to disk as a draft soon after. */
  protected touch(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.keepDraft(), REST);
  }

  private keepDraft(): void {
    const studyId = this.study()?.id;
    if (!studyId || !this.editor) return;
    const [title, kind, tags, question] = [this.title(), this.kind(), this.tags(), this.question()];
    memoDrafts.keep(studyId, { task: this.task(), title, kind, tags, question, text: this.editor.getMarkdown() });
  }

  protected format(how: 'bold' | 'italic' | 'heading' | 'list' | 'numbers' | 'quote'): void {
    const chain = this.editor?.chain().focus();
    if (how === 'bold') chain?.toggleBold().run();
    if (how === 'italic') chain?.toggleItalic().run();
    if (how === 'heading') chain?.toggleHeading({ level: 2 }).run();
    if (how === 'list') chain?.toggleBulletList().run();
    if (how === 'numbers') chain?.toggleOrderedList().run();
    if (how === 'quote') chain?.toggleBlockquote().run();
  }

  /** Quotes the passage the memo is about: it will show the words as they are, and lead to them. */
  protected async quote(): Promise<void> {
    const subject = this.passage();
    const passage = subject && passageOf(this.data()?.passages[subject.documentId], subject.id);
    const text = passage && (await this.texts.get(subject!.documentId));
    if (!passage || !text) return this.notices.refuse('The passage is no longer there.');
    const words = text.text.slice(passage.start, passage.end).replace(/\s+/g, ' ');
    const link = { type: 'text', text: words, marks: [{ type: 'link', attrs: { href: addressOf(subject!) } }] };
    this.editor
      ?.chain()
      .focus()
      .insertContent([{ type: 'blockquote', content: [{ type: 'paragraph', content: [link] }] }, { type: 'paragraph' }])
      .run();
  }

  protected keep(): void {
    const text = this.editor?.getMarkdown().trim() ?? '';
    const memo = this.memo();
    const task = this.task();
    const tags = this.tags().split(',');
    if (memo) {
      const entry = this.editing();
      const question = this.question() ? ('open' as const) : memo.question === 'open' ? ('answered' as const) : undefined;
      const kept = this.session.run(
        together([
          entry ? editMemoEntry(memo.id, entry.id, text) : addMemoEntry(memo.id, text),
          editMemo(memo.id, { title: this.title(), kind: this.kind(), tags, ...(question && { question }) }),
        ]),
      );
      if (!kept && text !== (entry?.text ?? '')) return;
    } else {
      const title =
        this.title().trim() ||
        text
          .replace(/[#>*_[\]]/g, '')
          .trim()
          .split(/\s+/)
          .slice(0, 7)
          .join(' ');
      const about = 'about' in task ? task.about : null;
      if (
        !this.session.run(addMemo({ title, kind: this.kind(), about, text, tags, ...(this.question() && { question: 'open' as const }) }))
      )
        return;
    }
    this.end();
  }

  /** Goes back to what was looked at; what is written stays as a draft. */
  protected leave(): void {
    this.keepDraft();
    const left = Boolean(this.editor?.getMarkdown().trim()) && !this.editing();
    this.closed = true;
    this.desk.close();
    if (left) this.notices.say('What you wrote is kept as a draft; it comes back when you write here again.');
  }

  protected drop(): void {
    this.end();
  }

  private end(): void {
    this.closed = true;
    clearTimeout(this.timer);
    const studyId = this.study()?.id;
    if (studyId) memoDrafts.drop(studyId);
    this.desk.close();
  }
}
