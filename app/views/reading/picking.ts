import { ApplicationRef, inject, Injectable, signal } from '@angular/core';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { tidyLine } from '@core/text/normalise';
import { Notices } from '../../state/notices';
import type { Picked } from '../../ui/picker/code-picker';
import { PassageWork } from './passage-work';
import { ReadingHere } from './reading-here';

/** Where the code picker is open, for which place, and instead of which code. */
interface Open {
  readonly place: Stretch;
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

  /** Opens it for what is selected or chosen. @param instead the code whose place the picked one takes on the chosen passage */
  begin(instead: Id | null = null): void {
    const surface = this.here.surface();
    const place = instead ? this.here.chosen() : this.work.place();
    if (!surface || !place) return;
    const coords = surface.coordsOf(place.end) ?? surface.coordsOf(place.start) ?? { left: 300, bottom: 200, top: 180 };
    const below = coords.bottom + 6 + PICKER.height < innerHeight;
    this.open.set({
      place: { start: place.start, end: place.end },
      left: Math.max(90, Math.min(coords.left - 60, innerWidth - PICKER.width)),
      top: below ? coords.bottom + 6 : Math.max(8, coords.top - PICKER.height - 10),
      words: instead ? '' : tidyLine(this.here.text()!.text.slice(place.start, place.end)).slice(0, 120),
      instead,
    });
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
    else this.work.code(open.place, picked);
  }

  close(): void {
    this.open.set(null);
    this.here.surface()?.collapse();
    this.here.surface()?.focus();
  }
}
