import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { EMPTY_HISTORY } from '@core/change/journal';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { Bench } from '@core/testing/make';
import { tidySelection } from '@core/text/stretch';
import { PassageWork } from '../views/reading/passage-work';
import { ReadingHere } from '../views/reading/reading-here';
import { SetMembers } from '../views/reading/set-members';
import type { ReadingSurface } from '../views/reading/surface/reading-surface';
import { TextCache } from '../state/text-cache';
import { SessionInStore, sessionInStore } from './session-in-store';
import { openInStore } from './study-store';

/** What the researcher does with the text: a surface that is not drawn. */
export class HandledSurface {
  place: Stretch | null = null;
  at = 0;
  readonly shown: Stretch[] = [];

  constructor(private readonly words: string) {}

  /** Selects words where they first stand. */
  selectWords(words: string): void {
    const start = this.words.indexOf(words);
    this.place = { start, end: start + words.length };
  }

  selection(): Stretch | null {
    return this.place && tidySelection(this.words, this.place.start, this.place.end);
  }

  selectionOrParagraph(): Stretch | null {
    if (this.place) return this.selection();
    const start = this.words.lastIndexOf('\n', Math.max(0, this.at - 1)) + 1;
    const end = this.words.indexOf('\n', this.at);
    return { start, end: end < 0 ? this.words.length : end };
  }

  caret(): number {
    return this.place?.end ?? this.at;
  }

  select(place: Stretch): void {
    this.place = place;
  }

  collapse(): void {
    if (this.place) this.at = this.place.end;
    this.place = null;
  }

  shows(): boolean {
    return true;
  }

  goTo(place: Stretch): void {
    this.shown.push(place);
    this.at = place.start;
    this.place = null;
  }

  focus(): void {
    this.collapse();
  }
}

/** A document read in a pane, with everything that keys and buttons ask of it. */
export interface ReadingPane {
  readonly bench: Bench;
  readonly document: Document;
  readonly words: string;
  readonly surface: HandledSurface;
  readonly here: ReadingHere;
  readonly work: PassageWork;
  readonly session: SessionInStore;
  /** Passages as `words: codes`, in reading order. */
  readonly passages: () => string[];
}

/** Opens a study with one document in it. @param prepare makes codes and passages beforehand */
export function readingPane(lines: readonly string[], prepare: (bench: Bench, document: Document) => void = () => undefined): ReadingPane {
  const bench = new Bench();
  const document = bench.addDocument('Interview 03', lines);
  prepare(bench, document);
  TestBed.configureTestingModule({ providers: [provideRouter([]), ...sessionInStore, SetMembers, ReadingHere, PassageWork] });
  openInStore({ state: bench.state, history: EMPTY_HISTORY, backup: null });
  const text = bench.texts.get(document.id)!;
  TestBed.inject(TextCache).put(text, null);
  const here = TestBed.inject(ReadingHere);
  const surface = new HandledSurface(text.text);
  here.surface = () => surface as unknown as ReadingSurface;
  here.documentId.set(document.id);
  const nameOf = (id: Id): string => here.codes()[id]?.name ?? '?';
  return {
    bench,
    document,
    words: text.text,
    surface,
    here,
    work: TestBed.inject(PassageWork),
    session: TestBed.inject(SessionInStore),
    passages: () =>
      here
        .passages()
        .map(
          (passage) =>
            `${text.text.slice(passage.start, passage.end)}: ${passage.codings.map((coding) => nameOf(coding.codeId)).join(', ') || '–'}`,
        ),
  };
}
