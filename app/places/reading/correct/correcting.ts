import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { correctTexts, passagesLost } from '@core/change/commands/correct-text';
import type { TextEdits } from '@core/text/edit';
import { tidyLine } from '@core/text/normalise';
import { correctionDrafts } from '../../../state/correction-drafts';
import { StudySession } from '../../../state/study-session';
import { selectData } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { ReadingHere } from '../reading-here';

/** Correcting the text at hand: begun, kept against a crash while it is typed, then kept for good or dropped. */
@Injectable()
export class Correcting {
  private readonly here = inject(ReadingHere);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly data = inject(Store).selectSignal(selectData);
  private readonly drafts = signal(0);
  /** Where the correcting begins, or null while the text is read. */
  readonly from = signal<number | null>(null);
  /** Corrections that were begun in this document and neither kept nor dropped. */
  readonly begun = computed((): TextEdits => {
    this.drafts();
    const text = this.here.text();
    return text ? correctionDrafts.of(text.id, text.text) : [];
  });

  keepTyped(edits: TextEdits): void {
    const text = this.here.text();
    if (text) correctionDrafts.keep(text.id, text.text, edits);
  }

  forgetTyped(): void {
    correctionDrafts.drop(this.here.documentId()!);
    this.drafts.update((version) => version + 1);
  }

  /** Keeps a correction, after naming the passages that would lose all their words. */
  async keep(edits: TextEdits): Promise<void> {
    const text = this.here.text();
    const data = this.data();
    if (!text || !data) return;
    const correction = { text, edits };
    const lost = passagesLost(data, correction);
    const goOn =
      lost.length === 0 ||
      (await this.ask.confirm({
        title: lost.length === 1 ? 'A passage loses all its words' : `${lost.length} passages lose all their words`,
        lines: [
          ...lost.slice(0, 8).map((passage) => {
            const names = passage.codings.map((coding) => this.here.codes()[coding.codeId]?.name).join(', ');
            return `“${tidyLine(text.text.slice(passage.start, passage.end)).slice(0, 90)}” – ${names || 'no code'}`;
          }),
          ...(lost.length > 8 ? [`and ${lost.length - 8} more`] : []),
          'They go with their words. It can be undone.',
        ],
        yes: 'Keep the corrections',
        danger: true,
      }));
    if (!goOn) return;
    this.session.run(correctTexts([correction]));
    this.from.set(null);
    this.forgetTyped();
  }

  async drop(changed: boolean): Promise<void> {
    const goOn =
      !changed ||
      (await this.ask.confirm({ title: 'Drop the corrections?', lines: ['The text stays as it was.'], yes: 'Drop them', danger: true }));
    if (!goOn) return;
    this.from.set(null);
    this.forgetTyped();
  }
}
