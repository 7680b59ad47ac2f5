import { ApplicationRef, inject, Injectable, signal } from '@angular/core';
import type { Id } from '@core/model/ids';
import { tidyLine } from '@core/text/normalise';
import { wordsSpoken } from '@core/text/timeline';
import { Notices } from '../../state/notices';
import type { Picked } from '../../ui/picker/code-picker';
import { PassageWork, type Spot } from './passage-work';
import { ReadingHere } from './reading-here';

/** Where the code picker is open, for which place, and instead of which code. */
interface Open {
  readonly spot: Spot;
  readonly left: number;
  readonly top: number;
  readonly words: string;
  readonly instead: Id | null;
}

/** The room that the picker takes, in pixels. */
const PICKER = { width: 370, height: 340 };

/** The code picker over the text: where it opens, and what becomes of what is picked. */
@Injectable()
export class Picking {
  private readonly here = inject(ReadingHere);
  private readonly work = inject(PassageWork);
  private readonly notices = inject(Notices);
  private readonly application = inject(ApplicationRef);
  readonly open = signal<Open | null>(null);
  /** What had the keys before. */
  private before: Element | null = null;

  /** Opens it for what is selected or chosen. @param instead the code whose place the picked one takes on the chosen passage */
  begin(instead: Id | null = null): void {
    const chosen = this.here.chosen();
    const spot = instead ? chosen && { documentId: chosen.documentId, place: chosen } : this.work.place();
    if (!spot) return;
    const coords = this.coordsOf(spot);
    const below = coords.bottom + 6 + PICKER.height < innerHeight;
    this.open.set({
      spot,
      left: Math.max(90, Math.min(coords.left - 60, innerWidth - PICKER.width)),
      top: below ? coords.bottom + 6 : Math.max(8, coords.top - PICKER.height - 10),
      words: instead ? '' : this.wordsOf(spot),
      instead,
    });
    this.before = document.activeElement;
    // drawn at once, so that the next key already goes to the picker however fast the hands are
    this.application.tick();
  }

  /** Opens it to put another code in the place of the one on the chosen passage. */
  beginInstead(): void {
    const chosen = this.here.chosen();
    if (!chosen) return this.notices.say('Choose a passage first.');
    if (chosen.codings.length !== 1) return this.notices.say('It carries several codes or none: choose in the panel which one to change.');
    this.begin(chosen.codings[0]!.codeId);
  }

  picked(picked: Picked): void {
    const open = this.open();
    if (!open) return;
    if (open.instead) this.work.recode(open.instead, picked);
    else this.work.code(open.spot, picked);
  }

  close(): void {
    this.open.set(null);
    this.here.surface()?.collapse();
    const { before } = this;
    this.before = null;
    // from the sound line or the picture one comes back to it, else to the text
    if (before instanceof HTMLElement && before.isConnected && before.dataset['original'] !== undefined) before.focus();
    else this.here.surface()?.focus();
  }

  /** Beside the words, or where the recording or picture says that its place is. */
  private coordsOf({ documentId, place }: Spot): { readonly left: number; readonly top: number; readonly bottom: number } {
    const surface = this.here.surface();
    const inText = documentId === this.here.document()?.id ? (surface?.coordsOf(place.end) ?? surface?.coordsOf(place.start)) : null;
    return inText ?? this.here.coordsOfMarked() ?? { left: 300, bottom: 200, top: 180 };
  }

  private wordsOf({ documentId, place }: Spot): string {
    const text = this.here.text();
    if (!text) return '';
    const words = documentId === text.id ? place : this.here.original()?.ground.of === 'time' ? wordsSpoken(text, place) : null;
    return words ? tidyLine(text.text.slice(words.start, words.end)).slice(0, 120) : '';
  }
}
