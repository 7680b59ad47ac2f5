import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { selectStudy } from './study.selectors';

/** Where the drafts of a kind lie in the browser's storage, each followed by what it belongs to; `forgetDrafts` finds them by it. */
export const draftsAt = (studyId: Id, kind = ''): string => `filum-draft ${studyId} ${kind && `${kind} `}`;

/** What a piece of writing is: "definition", "comment"…, and of which thing (an id, or a word for what has none yet). */
export interface DraftOf {
  readonly what: string;
  readonly of: string;
}

/** Writing that was begun and neither kept nor dropped. */
export interface Draft {
  readonly text: string;
  /** What was stored when it was begun: if that is another by now, somebody changed it meanwhile. */
  readonly base: string;
}

/**
 * Writing that is not part of the study yet, in this browser until it is kept or dropped, so that neither a crash nor
 * going elsewhere loses any. Each draft belongs to one thing of one study; any number lie beside each other.
 */
@Injectable({ providedIn: 'root' })
export class Drafts {
  private readonly study = inject(Store).selectSignal(selectStudy);
  /** Say of what is on the screen whether it holds writing that is not kept. */
  private readonly holders = new Set<() => boolean>();

  /** @returns false where the browser has no room for it: the words are only on the screen then */
  keep(of: DraftOf, draft: Draft): boolean {
    const key = this.keyOf(of);
    if (key === null) return false;
    try {
      localStorage.setItem(key, JSON.stringify(draft));
      return true;
    } catch {
      return false;
    }
  }

  get(of: DraftOf): Draft | null {
    const key = this.keyOf(of);
    if (key === null) return null;
    try {
      const stored = JSON.parse(localStorage.getItem(key) ?? 'null') as Partial<Draft> | null;
      return typeof stored?.text === 'string' && typeof stored.base === 'string' ? { text: stored.text, base: stored.base } : null;
    } catch {
      return null;
    }
  }

  drop(of: DraftOf): void {
    const key = this.keyOf(of);
    if (key !== null) localStorage.removeItem(key);
  }

  /** Things that have a draft of a kind. */
  all(what: string): string[] {
    const studyId = this.study()?.id;
    if (studyId === undefined) return [];
    const head = draftsAt(studyId, what);
    return Object.keys(localStorage).flatMap((key) => (key.startsWith(head) ? [key.slice(head.length)] : []));
  }

  /** Asks from now on whether there is writing on the screen that is not kept. @returns what ends it */
  watch(holds: () => boolean): () => void {
    this.holders.add(holds);
    return () => void this.holders.delete(holds);
  }

  /** Whether something on the screen is written and not kept: a window with it asks before it closes. */
  unkept(): boolean {
    return [...this.holders].some((holds) => holds());
  }

  private keyOf({ what, of }: DraftOf): string | null {
    const studyId = this.study()?.id;
    return studyId === undefined ? null : draftsAt(studyId, what) + of;
  }
}

/** Forgets the drafts of a study that was deleted. */
export function forgetDrafts(studyId: Id): void {
  for (const key of Object.keys(localStorage)) if (key.startsWith(draftsAt(studyId))) localStorage.removeItem(key);
}
