import { inject, Injectable, type OnDestroy } from '@angular/core';
import { ReaderSettings } from '../../state/reader-settings';
import { ShownHereList, type ShownHere } from '../../state/shown-here';
import { Visits } from '../../state/visits';
import { ReadingHere } from './reading-here';

/** Puts every way of showing that is on into the scope sentence, one click from off. */
@Injectable()
export class ShownWays implements OnDestroy {
  private readonly here = inject(ReadingHere);
  private readonly settings = inject(ReaderSettings);
  private readonly list = inject(ShownHereList);
  private readonly visits = inject(Visits);

  private told: readonly ShownHere[] | null = null;

  /** To be called where signals are followed. */
  tell(): void {
    this.visits.count();
    const looks = this.settings.looks();
    const parts: ShownHere[] = [];
    const only = this.here.codes()[this.here.only() ?? ''];
    if (only) parts.push({ words: `only passages of ${only.name}`, off: () => this.here.only.set(null) });
    if (looks.coded !== 'as they are')
      parts.push({ words: `coded words ${looks.coded}`, off: () => this.settings.setLooks({ coded: 'as they are' }) });
    if (!looks.threads) parts.push({ words: 'no threads', off: () => this.settings.setLooks({ threads: true }) });
    if (looks.dimInterviewer) parts.push({ words: 'questions dimmed', off: () => this.settings.setLooks({ dimInterviewer: false }) });
    const slips = this.here.slipChoice();
    if (slips.of !== 'all') {
      const whose =
        slips.of === 'pinned'
          ? 'pinned codes'
          : slips.of === 'category'
            ? (this.here.codes()[slips.id]?.name ?? '')
            : slips.of === 'set'
              ? 'a set of codes'
              : 'one coder';
      parts.push({ words: `slips of ${whose}`, off: () => this.here.slipChoice.set({ of: 'all' }) });
    }
    this.told = parts;
    this.list.parts.set(parts);
  }

  ngOnDestroy(): void {
    // a pane beside this place says nothing itself, and must not end what the place says
    if (this.told && this.list.parts() === this.told) this.list.parts.set([]);
  }
}
