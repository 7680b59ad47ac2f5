import { inject, Injectable, signal } from '@angular/core';
import type { Id } from '@core/model/ids';
import { Drafts } from '../../../state/drafts';

/** A value as it was typed, and why it is not one. */
export interface WrongValue {
  readonly raw: string;
  readonly reason: string;
}

const WHAT = 'register';

/**
 * Values of the register that were typed and do not fit: they stay in their cells, said to be wrong, until they are
 * mended or taken back, and survive a reload. None of them is part of the study.
 */
@Injectable()
export class WrongValues {
  private readonly drafts = inject(Drafts);
  private readonly values = signal<ReadonlyMap<string, WrongValue>>(this.stored());
  readonly count = (): number => this.values().size;

  of(caseId: Id, attributeId: Id | undefined): WrongValue | undefined {
    return this.values().get(`${caseId} ${attributeId ?? 'name'}`);
  }

  put(caseId: Id, attributeId: Id | undefined, wrong: WrongValue): void {
    const key = `${caseId} ${attributeId ?? 'name'}`;
    this.drafts.keep({ what: WHAT, of: key }, { text: wrong.raw, base: wrong.reason });
    this.values.update((known) => new Map(known).set(key, wrong));
  }

  drop(caseId: Id, attributeId: Id | undefined): void {
    const key = `${caseId} ${attributeId ?? 'name'}`;
    if (!this.values().has(key)) return;
    this.drafts.drop({ what: WHAT, of: key });
    this.values.update((known) => {
      const next = new Map(known);
      next.delete(key);
      return next;
    });
  }

  private stored(): Map<string, WrongValue> {
    return new Map(
      this.drafts.all(WHAT).flatMap((key) => {
        const draft = this.drafts.get({ what: WHAT, of: key });
        return draft ? [[key, { raw: draft.text, reason: draft.base }] as const] : [];
      }),
    );
  }
}
