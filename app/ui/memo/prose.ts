import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import { Store } from '@ngrx/store';
import { memoHtml } from '@core/memos/memo-html';
import { referenceOf, referencesIn, type Reference } from '@core/model/address';
import { passageOf } from '@core/passages/columns';
import { selectPassages } from '../../state/study.selectors';
import { TextCache } from '../../state/text-cache';
import { MemoNames } from './memo-names';

/**
 * A memo's words as rich text. Quotes of passages show the words as they are now, links lead to what they name, and
 * what is gone is said to be gone.
 */
@Component({
  selector: 'fl-prose',
  template: `<div
    class="prose"
    [innerHTML]="html()"
    (click)="onClick($event)"
    (keydown.enter)="onClick($event)"
    role="presentation"
  ></div>`,
  styleUrl: './prose.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Prose {
  /** Markdown. */
  readonly text = input.required<string>();
  private readonly names = inject(MemoNames);
  private readonly texts = inject(TextCache);
  private readonly passages = inject(Store).selectSignal(selectPassages);
  private readonly quoted = computed(() => referencesIn(this.text()).filter((one) => one.type === 'passage'));
  /** Words of the quoted passages as they stand in their texts now, by passage. */
  private readonly words = resource({
    params: () =>
      this.quoted().length > 0 ? { changes: this.texts.changes(), quoted: this.quoted(), passages: this.passages() } : undefined,
    loader: async ({ params }) => {
      const words = new Map<string, string>();
      for (const { id, documentId } of params.quoted) {
        const passage = passageOf(params.passages[documentId], id);
        const text = passage && (await this.texts.get(documentId));
        if (passage && text) words.set(id, text.text.slice(passage.start, passage.end));
      }
      return words;
    },
  });
  protected readonly html = computed(() => {
    const words = this.words.hasValue() ? this.words.value() : null;
    return memoHtml(this.text(), (reference, label) => {
      const name = this.names.nameOf(reference);
      if (name === null) return { words: label, gone: true };
      return { words: reference.type === 'passage' ? (words?.get(reference.id) ?? label) : label || name, gone: false };
    });
  });

  protected onClick(event: Event): void {
    const link = (event.target as HTMLElement).closest('a');
    const address = link?.getAttribute('href') ?? '';
    const reference: Reference | null = address.startsWith('#') ? referenceOf(address.slice(1)) : null;
    if (!reference) return;
    event.preventDefault();
    this.names.goTo(reference);
  }
}
