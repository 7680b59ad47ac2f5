import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { DOCUMENT_KINDS } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Question } from '@core/model/query';
import { nameOfRecord } from '@core/model/records';
import { KINDS_IN_WORDS, namesIn, type NameOf } from '@core/queries/words';
import { listsByName } from '@core/words/expression';
import { naturalOrder } from '@core/text/natural-order';
import { selectData } from '../../state/study.selectors';
import type { Offer } from './choose-several';

/** What a question can ask for in the open study, by name. */
@Injectable()
export class AskedHere {
  /** Names of what is asked for and gone, by id, as whatever asks remembers them. */
  readonly gone = signal<() => Question['gone']>(() => undefined);
  private readonly data = inject(Store).selectSignal(selectData);
  private readonly tables = computed(() => this.data()?.tables);
  readonly caseWord = computed(() => this.data()?.study.caseWord ?? 'case');
  /** The scale of ratings the study uses; undefined where it uses none. */
  readonly ratings = computed(() => this.data()?.study.ratings);
  readonly names = computed((): NameOf => {
    const data = this.data();
    return data ? namesIn(data, this.gone()()) : () => '';
  });
  readonly documents = this.offersOf('document');
  readonly folders = this.offersOf('folder', 'folder');
  readonly sets = this.offersOf('set', 'set');
  readonly codeSets = this.offersOf('codeSet');
  readonly coders = this.offersOf('coder');
  readonly queries = this.offersOf('query');
  readonly cases = this.offersOf('case');
  readonly questions = computed((): Offer[] =>
    Object.values(this.tables()?.question ?? {})
      .sort((a, b) => a.order - b.order)
      .map(({ id, text }) => ({ id, name: text })),
  );
  readonly kinds = computed((): Offer[] => {
    const present = new Set(Object.values(this.tables()?.document ?? {}).map((document) => document.kind));
    return DOCUMENT_KINDS.filter((kind) => present.has(kind)).map((kind) => ({ id: kind, name: KINDS_IN_WORDS[kind] }));
  });
  readonly wordLists = computed(() => listsByName(Object.values(this.tables()?.wordList ?? {})));
  readonly attributes = computed(() => Object.values(this.tables()?.attribute ?? {}).sort((a, b) => a.order - b.order));
  readonly hasMedia = computed(() => Object.values(this.tables()?.document ?? {}).some((document) => document.ground.of !== 'text'));
  readonly hasDates = computed(() => Object.values(this.tables()?.document ?? {}).some((document) => document.date !== null));
  /** Names of speakers that are no case. */
  readonly speakers = computed((): Offer[] => {
    const names = new Set<string>();
    for (const document of Object.values(this.tables()?.document ?? {}))
      for (const speaker of document.speakers) if (!speaker.caseId) names.add(speaker.name);
    return naturalOrder([...names], (name) => name).map((name) => ({ id: name, name }));
  });

  codeOf(id: Id) {
    return this.tables()?.code[id];
  }

  attributeOf(id: Id) {
    return this.tables()?.attribute[id];
  }

  private offersOf(type: 'document' | 'folder' | 'set' | 'codeSet' | 'coder' | 'query' | 'case', note?: string) {
    return computed((): Offer[] => {
      const records: readonly object[] = Object.values(this.tables()?.[type] ?? {});
      const offers = records.map((record) => ({ id: (record as { id: Id }).id, name: nameOfRecord(record), ...(note && { note }) }));
      return naturalOrder(offers, (offer) => offer.name);
    });
  }
}
