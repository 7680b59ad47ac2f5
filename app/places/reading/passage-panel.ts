import { DatePipe } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  viewChild,
} from '@angular/core';
import { Store } from '@ngrx/store';
import { removeCoding, removePassage, setComment } from '@core/change/commands/passages';
import type { Document, Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Memo } from '@core/model/memo';
import type { Passage } from '@core/model/passage';
import { placeOf } from '@core/text/place';
import { StudySession } from '../../state/study-session';
import { selectCoders, selectCodes } from '../../state/study.selectors';
import { Icon } from '../../ui/icon/icon';
import { Swatch } from '../../ui/swatch/swatch';

/** The chosen passage: its words, its codes with coder and time, its comment and memos, and what can be done with it. */
@Component({
  selector: 'fl-passage-panel',
  imports: [DatePipe, Icon, Swatch],
  templateUrl: './passage-panel.html',
  styleUrl: './passage-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PassagePanel {
  readonly passage = input.required<Passage>();
  readonly document = input.required<Document>();
  readonly text = input.required<Text>();
  readonly memos = input.required<readonly Memo[]>();
  readonly code = output<void>();
  readonly memo = output<Id | null>();
  readonly copied = output<void>();
  readonly closed = output<void>();

  private readonly session = inject(StudySession);
  private readonly store = inject(Store);
  private readonly box = viewChild<ElementRef<HTMLTextAreaElement>>('comment');
  protected readonly codes = this.store.selectSignal(selectCodes);
  protected readonly coders = this.store.selectSignal(selectCoders);
  protected readonly place = computed(() => placeOf(this.document(), this.text(), this.passage().start));
  protected readonly words = computed(() => {
    const words = this.text().text.slice(this.passage().start, this.passage().end);
    return words.length > 180 ? `${words.slice(0, 120)} … ${words.slice(-50)}` : words;
  });
  protected readonly codings = computed(() => this.passage().codings.filter((coding) => Object.hasOwn(this.codes(), coding.codeId)));
  /** What stands in the box: the comment, or what is being written over it. */
  protected readonly draft = linkedSignal(() => this.passage().comment);

  focusComment(): void {
    this.box()?.nativeElement.focus();
  }

  protected takeOff(codeId: Id, coderId: Id): void {
    this.session.run(removeCoding(this.passage().documentId, this.passage().id, codeId, coderId));
  }

  protected saveComment(): void {
    if (this.draft().trim() !== this.passage().comment)
      this.session.run(setComment(this.passage().documentId, this.passage().id, this.draft()));
  }

  protected remove(): void {
    this.session.run(removePassage(this.passage().documentId, this.passage().id));
    this.closed.emit();
  }
}
