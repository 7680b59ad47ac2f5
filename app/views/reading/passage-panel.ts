import { quoted } from '@core/text/quoted';
import { askComment, memoFromComment } from '@core/commands/memos';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, type ElementRef, inject, input, output, viewChild } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { removeCoding, removePassage, setComment } from '@core/commands/passages';
import { rateCoding, recodeAllHere } from '@core/commands/reshape-passages';
import { codeNamed } from '@core/codebook/find-codes';
import { hasText, type Document, type Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Memo } from '@core/model/memo';
import type { Passage } from '@core/model/passage';
import { placeOf } from '@core/text/citation';
import { wordsSpoken } from '@core/text/timeline';
import { StudySession } from '../../state/study-session';
import { selectCoders, selectCodes, selectStudy } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { Icon } from '../../ui/icon/icon';
import { Writing, type Keeping } from '../../ui/writing/writing';
import { Swatch } from '../../ui/swatch/swatch';

/** The chosen passage: its words, its codes with coder and time, its comment and memos, and what can be done with it. */
@Component({
  selector: 'fl-passage-panel',
  imports: [DatePipe, Icon, MatMenuModule, Swatch, Writing],
  templateUrl: './passage-panel.html',
  styleUrl: './passage-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PassagePanel {
  readonly passage = input.required<Passage>();
  readonly document = input.required<Document>();
  /** The text that is read: its own, or of the recording that it is of; null where there is none. */
  readonly text = input.required<Text | null>();
  /** Whether it can be heard. */
  readonly heard = input(false);
  readonly played = output();
  readonly memos = input.required<readonly Memo[]>();
  readonly code = output<void>();
  readonly memo = output<Id | null>();
  readonly copied = output<void>();
  readonly closed = output<void>();
  /** Passages that share words with this one. */
  readonly alsoHere = input<readonly Passage[]>([]);
  readonly chosen = output<Id>();
  /** Another code is to take the place of this one. */
  readonly recoded = output<Id>();

  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly study = inject(Store).selectSignal(selectStudy);
  /** Ratings that can be given, or none where the study does not rate. */
  protected readonly ratings = computed(() => Array.from({ length: this.study()?.ratings ?? 0 }, (_, at) => at + 1));
  private readonly store = inject(Store);
  private readonly box = viewChild<ElementRef<HTMLTextAreaElement>>('comment');
  protected readonly codes = this.store.selectSignal(selectCodes);
  protected readonly coders = this.store.selectSignal(selectCoders);
  /** The text that passages of the document stand in. */
  private readonly ownText = computed(() => (hasText(this.document()) ? this.text() : null));
  protected readonly place = computed(() => placeOf(this.document(), this.ownText(), this.passage()));
  /** Its words; of a span of a recording those that are said within it. */
  protected readonly words = computed(() => {
    const text = this.text();
    const place = hasText(this.document())
      ? this.passage()
      : text && this.document().ground.of === 'time'
        ? wordsSpoken(text, this.passage())
        : null;
    const words = text && place ? text.text.slice(place.start, place.end) : '';
    return words.length > 180 ? `${words.slice(0, 120)} … ${words.slice(-50)}` : words;
  });
  protected readonly codings = computed(() => this.passage().codings.filter((coding) => Object.hasOwn(this.codes(), coding.codeId)));
  protected readonly keepComment: Keeping = (text, of) => {
    const [documentId, passageId] = of.split(' ') as [Id, Id];
    return this.session.attempt(setComment(documentId, passageId, text)).refused;
  };

  protected readonly alsoWords = computed(() => {
    const count = this.alsoHere().length;
    return `${count} more ${count === 1 ? 'passage shares' : 'passages share'} ${this.words() ? 'these words' : 'this place'}`;
  });

  focusComment(): void {
    this.box()?.nativeElement.focus();
  }

  protected takeOff(codeId: Id, coderId: Id): void {
    this.session.run(removeCoding(this.passage().documentId, this.passage().id, codeId, coderId));
  }

  protected rate(codeId: Id, coderId: Id, value: string): void {
    const { documentId, id } = this.passage();
    this.session.run(rateCoding(documentId, id, codeId, coderId, value === '' ? null : Number(value)));
  }

  /** Every passage of this document that carries the code gets another in its place. */
  protected async recodeAll(codeId: Id): Promise<void> {
    const { documentId } = this.passage();
    await this.ask.keep(
      `Every ${quoted(this.codes()[codeId]!.name)} in this document becomes`,
      'Name of the code to take its place',
      '',
      'Recode all here',
      (name) => {
        const to = codeNamed(this.codes(), name.trim());
        if (!to) return `There is no code ${quoted(name.trim())}. Make it first, or write a name from the codebook.`;
        return this.session.attempt(recodeAllHere(documentId, codeId, to.id)).refused;
      },
    );
  }

  protected namesOf(passage: Passage): string {
    return [...new Set(passage.codings.map((coding) => this.codes()[coding.codeId]?.name))].join(', ') || 'no code yet';
  }

  protected wordsOf(passage: Passage): string {
    const text = this.ownText();
    return text
      ? text.text.slice(passage.start, Math.min(passage.end, passage.start + 60))
      : placeOf(this.document(), null, passage).position;
  }

  /** The comment is a question to come back to, or is answered. */
  protected askAgain(): void {
    this.session.run(askComment(this.passage().documentId, this.passage().id, !this.passage().open));
  }

  protected makeMemo(): void {
    this.session.run(memoFromComment(this.passage().documentId, this.passage().id));
  }

  protected remove(): void {
    this.session.run(removePassage(this.passage().documentId, this.passage().id));
    this.closed.emit();
  }
}
