import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { RowsAsked } from '@core/model/pattern';
import { counted } from '@core/text/counted';
import { naturalOrder } from '@core/text/natural-order';
import { selectCodeSets, selectQueries } from '../../state/study.selectors';
import { ChooseCodes } from '../../ui/sentence/choose-codes';
import { ChosenOf } from '../../ui/sentence/chosen-of';
import type { Offer } from '../../ui/sentence/choose-several';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';

type Kind = 'every code' | 'chosen codes' | 'codes at the top' | 'sets of codes' | 'kept queries';

/** What a pattern looks for, as a part of its sentence. */
@Component({
  selector: 'fl-rows-part',
  imports: [ChooseCodes, ChosenOf, SentencePart],
  template: `
    <fl-part [words]="words()" [choices]="kinds()" (chosen)="set($event)" />
    @if (chosen(); as chosen) {
      <span class="anchor">
        <button class="part" (click)="choosing.set(!choosing())" [attr.aria-expanded]="choosing()">{{ chosenWords() }}</button>
        @if (choosing()) {
          <fl-choose-codes [chosen]="chosen" (changed)="choose($event)" (closed)="choosing.set(false)" />
        }
      </span>
    }
    @if (named(); as named) {
      <fl-chosen-of
        [label]="named.label"
        none="all of them"
        [offers]="named.offers"
        [chosen]="named.chosen"
        (changed)="chooseNamed($event)"
      />
    }
    @if (rows().of === 'codes') {
      <fl-part [words]="under() ? 'with what is under them' : 'by themselves'" [choices]="unders" (chosen)="setUnder($event)" />
    }
  `,
  styles: `
    /* set apart by what a blank is: what stands between parts of a template goes */
    :host {
      display: inline-flex;
      flex-wrap: wrap;
      gap: 0 0.3em;
    }
    .anchor {
      position: relative;
      display: inline-block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RowsPart {
  readonly rows = input.required<RowsAsked>();
  readonly changed = output<RowsAsked>();
  private readonly store = inject(Store);
  private readonly codeSets = this.store.selectSignal(selectCodeSets);
  private readonly queries = this.store.selectSignal(selectQueries);
  protected readonly choosing = signal(false);
  protected readonly unders: readonly Choice<boolean>[] = [
    { value: true, name: 'with what is under them' },
    { value: false, name: 'by themselves' },
  ];
  protected readonly words = computed((): Kind => {
    const rows = this.rows();
    if (rows.of === 'codes') return rows.codeIds ? 'chosen codes' : 'every code';
    return rows.of === 'top codes' ? 'codes at the top' : rows.of === 'code sets' ? 'sets of codes' : 'kept queries';
  });
  protected readonly kinds = computed((): Choice<Kind>[] =>
    (
      [
        'every code',
        'chosen codes',
        'codes at the top',
        ...(Object.keys(this.codeSets()).length > 0 ? ['sets of codes' as const] : []),
        ...(Object.keys(this.queries()).length > 0 ? ['kept queries' as const] : []),
      ] as const
    ).map((kind) => ({ value: kind, name: kind })),
  );
  /** The codes that are chosen; null where none have to be. */
  protected readonly chosen = computed(() => {
    const rows = this.rows();
    return rows.of === 'codes' ? rows.codeIds : null;
  });
  /** Sets of codes or kept queries, of which some can be chosen; null where it is codes. */
  protected readonly named = computed(() => {
    const rows = this.rows();
    if (rows.of === 'code sets') return { label: 'Find a set of codes', offers: offersOf(this.codeSets()), chosen: rows.setIds ?? [] };
    return rows.of === 'queries' ? { label: 'Find a query', offers: offersOf(this.queries()), chosen: rows.queryIds ?? [] } : null;
  });
  protected readonly chosenWords = computed(() => counted(this.chosen()?.length ?? 0, 'code'));
  protected readonly under = computed(() => {
    const rows = this.rows();
    return rows.of === 'codes' && rows.withUnder;
  });

  protected set(kind: Kind): void {
    this.choosing.set(kind === 'chosen codes');
    const withUnder = this.under();
    switch (kind) {
      case 'every code':
        return this.changed.emit({ of: 'codes', codeIds: null, withUnder });
      case 'chosen codes':
        return this.changed.emit({ of: 'codes', codeIds: this.chosen() ?? [], withUnder });
      case 'codes at the top':
        return this.changed.emit({ of: 'top codes' });
      case 'sets of codes':
        return this.changed.emit({ of: 'code sets', setIds: null });
      case 'kept queries':
        return this.changed.emit({ of: 'queries', queryIds: null });
    }
  }

  /** With none chosen all are meant. */
  protected chooseNamed(ids: readonly string[]): void {
    const some = ids.length > 0 ? [...ids] : null;
    this.changed.emit(this.rows().of === 'code sets' ? { of: 'code sets', setIds: some } : { of: 'queries', queryIds: some });
  }

  protected choose(codeIds: readonly string[]): void {
    this.changed.emit({ of: 'codes', codeIds: [...codeIds], withUnder: this.under() });
  }

  protected setUnder(withUnder: boolean): void {
    this.changed.emit({ of: 'codes', codeIds: this.chosen(), withUnder });
  }
}

const offersOf = (some: Readonly<Record<string, Offer>>): Offer[] =>
  naturalOrder(
    Object.values(some).map(({ id, name }) => ({ id, name })),
    ({ name }) => name,
  );
