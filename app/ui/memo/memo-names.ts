import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { fold } from '@core/text/fold';
import { nameOfSubject } from '@core/memos/name-of-subject';
import { addressOf, type Reference } from '@core/model/address';
import { selectData } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import type { LinkOffer } from './rich-text';

/** What references in memos are called, what can be linked to, and how to get there. */
@Injectable({ providedIn: 'root' })
export class MemoNames {
  private readonly ways = inject(Ways);
  private readonly data = inject(Store).selectSignal(selectData);

  private readonly linkable = computed((): readonly (LinkOffer & { readonly folded: string })[] => {
    const data = this.data();
    if (!data) return [];
    const { code, document, case: cases, memo, query } = data.tables;
    const offer = (reference: Reference, name: string, what: string) => ({ name, what, address: addressOf(reference), folded: fold(name) });
    return [
      ...Object.values(code).map((one) => offer({ type: 'code', id: one.id }, one.name, 'code')),
      ...Object.values(document).map((one) => offer({ type: 'document', id: one.id }, one.title, 'document')),
      ...Object.values(cases).map((one) => offer({ type: 'case', id: one.id }, one.name, data.study.caseWord)),
      ...Object.values(memo).map((one) => offer({ type: 'memo', id: one.id }, one.title, 'memo')),
      ...Object.values(query).map((one) => offer({ type: 'query', id: one.id }, one.name, 'query')),
    ];
  });

  /** Things whose names hold what was typed, those that begin with it first. */
  offers(typed: string, limit = 8): LinkOffer[] {
    const words = fold(typed.trim());
    const fits = this.linkable().filter((one) => one.folded.includes(words));
    return fits
      .sort((a, b) => Number(b.folded.startsWith(words)) - Number(a.folded.startsWith(words)) || a.name.localeCompare(b.name))
      .slice(0, limit);
  }

  /** What a reference is called now, or null if it is gone. */
  nameOf(reference: Reference): string | null {
    const data = this.data();
    if (!data) return null;
    return reference.type === 'memo' ? (data.tables.memo[reference.id]?.title ?? null) : nameOfSubject(data, reference);
  }

  /** Goes to what a reference stands for. */
  goTo(reference: Reference): void {
    const from = 'the memo';
    switch (reference.type) {
      case 'passage':
        return this.ways.go(['reading', reference.documentId], { queryParams: { passage: reference.id, from } });
      case 'document':
        return this.ways.go(['reading', reference.id], { queryParams: { from } });
      case 'code':
        return this.ways.go(['codebook'], { queryParams: { code: reference.id } });
      case 'case':
        return this.ways.go(['material'], { queryParams: { view: 'cases', caseId: reference.id } });
      case 'query':
        return this.ways.go(['queries'], { queryParams: { query: reference.id } });
      case 'memo':
        return this.ways.go(['memos'], { queryParams: { memo: reference.id } });
    }
  }
}
