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
  type OnInit,
  signal,
  viewChild,
} from '@angular/core';
import { Store } from '@ngrx/store';
import type { Editor } from '@tiptap/core';
import { addMemo, addMemoEntry, editMemo, editMemoEntry } from '@core/commands/memos';
import type { Command } from '@core/change/command';
import { together } from '@core/commands/together';
import { MEMO_KINDS } from '@core/model/memo';
import { nameOfSubject } from '@core/memos/name-of-subject';
import { subjectsOf } from '@core/memos/references';
import { addressOf } from '@core/model/address';
import { passageOf } from '@core/passages/columns';
import { Notices } from '../../state/notices';
import { memoDrafts, type MemoDraft, type MemoTask } from '../../state/memo-drafts';
import { StudySession } from '../../state/study-session';
import { selectCoders, selectData, selectMemos, selectStudy } from '../../state/study.selectors';
import { TextCache } from '../../state/text-cache';
import { Drafts } from '../../state/drafts';
import { Ask } from '../dialogs/ask';
import { holdFocus } from '../keys/hold-focus';
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
    // an Escape that closed the list of things to link to is done with
    '(keydown.escape)': '$event.defaultPrevented || leave(); $event.stopPropagation()',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Desk implements OnInit {
  readonly task = input.required<MemoTask>();

  private readonly desk = inject(WritingDesk);
  private readonly session = inject(StudySession);
  private readonly drafts = inject(Drafts);
  private readonly ask = inject(Ask);
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
  /** What stood in the fields and in the text when it was opened. */
  private fields = '';
  private words = '';

  /** The draft that was begun for the same task, if there is one. */
  private begun: MemoDraft | null = null;
  protected readonly memo = computed(() => {
    const task = this.task();
    return 'memoId' in task ? this.memos()[task.memoId] : undefined;
  });
  protected readonly editing = computed(() => {
    const task = this.task();
    return 'memoId' in task && task.entryId ? this.memo()?.entries.find((entry) => entry.id === task.entryId) : undefined;
  });
  protected readonly title = signal('');
  protected readonly kind = signal('analytic');
  protected readonly tags = signal('');
  protected readonly question = signal(false);
  /** Why it could not be kept, beside what was written. */
  protected readonly refusal = signal<string | null>(null);
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
    const flush = (): void => this.keepDraft();
    const unwatch = this.drafts.watch(() => this.isUnkept());
    window.addEventListener('pagehide', flush);
    inject(DestroyRef).onDestroy(() => {
      window.removeEventListener('pagehide', flush);
      unwatch();
      // what is on the desk when it goes otherwise than by its own buttons is not lost
      if (!this.closed) this.keepDraft();
      // nor does anything that still waits, or listens, come back to it
      this.closed = true;
      clearTimeout(this.timer);
      this.editor?.destroy();
    });
  }

  ngOnInit(): void {
    const studyId = this.study()?.id;
    const memo = this.memo();
    this.begun = studyId ? memoDrafts.of(studyId, this.task()) : null;
    // once: what is typed here must not be taken back by what happens to the memo elsewhere
    this.title.set(this.begun?.title ?? memo?.title ?? '');
    this.kind.set(this.begun?.kind ?? memo?.kind ?? 'analytic');
    this.tags.set(this.begun?.tags ?? memo?.tags?.join(', ') ?? '');
    this.question.set(this.begun?.question ?? memo?.question === 'open');
    this.fields = this.fieldsNow();
    this.words = this.begun?.text ?? this.editing()?.text ?? '';
    if (studyId) memoDrafts.setOpen(studyId, this.task());
  }

  private async start(): Promise<void> {
    const { makeRichText } = await import('./rich-text');
    if (this.closed) return;
    this.editor = makeRichText({
      element: this.place().nativeElement,
      text: this.words,
      offers: (typed) => this.names.offers(typed),
      changed: () => this.touch(),
    });
    // Markdown can say one thing in several ways: what the editor makes of it is what counts
    this.words = this.editor.getMarkdown();
    this.ready.set(true);
    holdFocus(() => {
      // it may have gone before the focus comes
      if (this.closed) return;
      if (!this.memo() && !this.begun) this.titleBox()?.nativeElement.focus();
      else this.editor?.commands.focus('end');
    });
  }

  private fieldsNow(): string {
    return JSON.stringify([this.title(), this.kind(), this.tags(), this.question()]);
  }

  private isUnkept(): boolean {
    if (this.closed) return false;
    return this.begun !== null || this.fieldsNow() !== this.fields || (this.editor !== null && this.editor.getMarkdown() !== this.words);
  }

  /** What is written goes to disk as a draft soon after. */
  protected touch(): void {
    this.refusal.set(null);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.keepDraft(), REST);
  }

  private keepDraft(): void {
    clearTimeout(this.timer);
    const studyId = this.study()?.id;
    if (!studyId || this.closed) return;
    if (!this.isUnkept()) return memoDrafts.drop(studyId, this.task());
    const [title, kind, tags, question] = [this.title(), this.kind(), this.tags(), this.question()];
    const kept = memoDrafts.keep(studyId, {
      task: this.task(),
      title,
      kind,
      tags,
      question,
      text: this.editor?.getMarkdown() ?? this.words,
    });
    if (!kept) this.refusal.set('The browser has no room for a draft: keep this before you close the window.');
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
    if (!this.editor) return;
    const text = this.editor.getMarkdown().trim();
    const { refused } = this.session.attempt(this.memo() ? this.writtenOn(text) : this.newMemo(text));
    if (refused !== null) {
      this.keepDraft();
      return this.refusal.set(refused);
    }
    this.end();
  }

  private writtenOn(text: string): Command {
    const memo = this.memo()!;
    const entry = this.editing();
    const question = this.question() ? ('open' as const) : memo.question === 'open' ? ('answered' as const) : undefined;
    return together([
      entry ? editMemoEntry(memo.id, entry.id, text) : addMemoEntry(memo.id, text),
      editMemo(memo.id, { title: this.title(), kind: this.kind(), tags: this.tags().split(','), ...(question && { question }) }),
    ]);
  }

  private newMemo(text: string): Command {
    const task = this.task();
    const firstWords = text
      .replace(/[#>*_[\]]/g, '')
      .trim()
      .split(/\s+/)
      .slice(0, 7)
      .join(' ')
      .slice(0, 200);
    return addMemo({
      title: this.title().trim() || firstWords,
      kind: this.kind(),
      about: 'about' in task ? task.about : null,
      text,
      tags: this.tags().split(','),
      ...(this.question() && { question: 'open' as const }),
    });
  }

  /** Goes back to what was looked at; what is written stays as a draft. */
  protected leave(): void {
    const left = this.isUnkept();
    this.keepDraft();
    this.close();
    if (left) this.notices.say('What you wrote is kept as a draft; it comes back when you write here again, and is listed under Memos.');
  }

  protected async drop(): Promise<void> {
    const goOn =
      !this.isUnkept() ||
      (await this.ask.confirm({ title: 'Drop what is written here?', lines: ['It was not kept yet.'], yes: 'Drop it', danger: true }));
    if (goOn) this.end();
  }

  private end(): void {
    const studyId = this.study()?.id;
    if (studyId) memoDrafts.drop(studyId, this.task());
    this.close();
  }

  private close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    const studyId = this.study()?.id;
    if (studyId) memoDrafts.setOpen(studyId, null);
    this.desk.close();
  }
}
