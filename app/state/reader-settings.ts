import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { isWords, keptSignal } from './kept-signal';
import { selectCodes, selectRecentCodeIds } from './study.selectors';

/** The type a reader reads in. */
export interface ReaderType {
  readonly face: 'serif' | 'sans' | 'dyslexia';
  /** Size of the letters, CSS pixels. */
  readonly size: number;
  /** Line height as a multiple of the size. */
  readonly leading: number;
  /** Characters in a line, about. */
  readonly measure: number;
}

/** What of the coding is shown, and how. */
export interface Looks {
  /** How words look that lie in a passage. */
  readonly coded: 'as they are' | 'dimmed' | 'folded away' | 'tinted';
  readonly threads: boolean;
  readonly numbers: boolean;
  readonly speakers: 'plain' | 'coloured';
  readonly dimInterviewer: boolean;
}

/** Which codes the slips in the margin name. */
export type SlipChoice =
  { readonly of: 'all' } | { readonly of: 'pinned' } | { readonly of: 'category' | 'coder' | 'set'; readonly id: Id };

export const FIRST_TYPE: ReaderType = { face: 'serif', size: 16.5, leading: 1.62, measure: 66 };
export const FIRST_LOOKS: Looks = { coded: 'as they are', threads: true, numbers: false, speakers: 'plain', dimInterviewer: false };
/** Sizes that can be chosen. */
export const TYPE_RANGE = { size: [13, 28], leading: [1.3, 2.2], measure: [40, 100] } as const;

/** Codes that can have a number key. */
const KEYS = 9;

/** How this reader reads: kept in this browser, for all studies but the pinned codes. */
@Injectable({ providedIn: 'root' })
export class ReaderSettings {
  private readonly store = inject(Store);
  readonly type = keptSignal('filum-reader-type', FIRST_TYPE, isType);
  readonly looks = keptSignal('filum-reader-looks', FIRST_LOOKS, isLooks);
  private readonly pins = keptSignal<readonly Id[]>('filum-pinned-codes', [], isWords);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly recent = this.store.selectSignal(selectRecentCodeIds);

  /** Codes of this study with a number key of their own, in its order. */
  readonly pinned = computed(() => this.pins().filter((id) => Object.hasOwn(this.codes(), id)));
  /** What the keys 1 to 9 code with: the pinned codes, then those used last. */
  readonly byNumber = computed((): readonly Id[] => {
    const pinned = this.pinned();
    const last = this.recent().filter((id) => !pinned.includes(id) && Object.hasOwn(this.codes(), id));
    return [...pinned, ...last].slice(0, KEYS);
  });

  /** Gives a code a number key, or takes it away. */
  pin(codeId: Id): void {
    this.pins.update((pins) => (pins.includes(codeId) ? pins.filter((id) => id !== codeId) : [...pins, codeId]));
  }

  setType(fields: Partial<ReaderType>): void {
    this.type.update((type) => ({ ...type, ...fields }));
  }

  setLooks(fields: Partial<Looks>): void {
    this.looks.update((looks) => ({ ...looks, ...fields }));
  }
}

const isObject = (stored: unknown): stored is Record<string, unknown> => typeof stored === 'object' && stored !== null;
const within = (value: unknown, [least, most]: readonly [number, number]): boolean =>
  typeof value === 'number' && value >= least && value <= most;

function isType(stored: unknown): stored is ReaderType {
  return (
    isObject(stored) &&
    ['serif', 'sans', 'dyslexia'].includes(stored['face'] as string) &&
    within(stored['size'], TYPE_RANGE.size) &&
    within(stored['leading'], TYPE_RANGE.leading) &&
    within(stored['measure'], TYPE_RANGE.measure)
  );
}

function isLooks(stored: unknown): stored is Looks {
  return (
    isObject(stored) &&
    ['as they are', 'dimmed', 'folded away', 'tinted'].includes(stored['coded'] as string) &&
    ['plain', 'coloured'].includes(stored['speakers'] as string) &&
    [stored['threads'], stored['numbers'], stored['dimInterviewer']].every((one) => typeof one === 'boolean')
  );
}
