import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal } from '@angular/core';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Carries } from '@core/model/passage-condition';
import { Icon } from '../icon/icon';
import { SentencePart, type Choice } from './sentence-part';
import { Swatch } from '../swatch/swatch';
import { AskedHere } from './asked-here';
import { ChooseCodes } from './choose-codes';
import { ChosenOf } from './chosen-of';
import { GivenPart } from './given-part';

/** A code as the sentence names it; of one that is gone there is only its name. */
type AskedCode = Pick<Code, 'id' | 'name' | 'mark' | 'colour'> & { readonly gone?: true };
interface How {
  readonly carries: Carries['carries'];
  readonly number?: number;
}

/** “carry any of …”: which codes, how they are counted, on what, and given by whom. */
@Component({
  selector: 'fl-carries-part',
  imports: [ChooseCodes, ChosenOf, GivenPart, Icon, SentencePart, Swatch],
  template: `
    <span>carry</span>
    @if (codes().length + asked().codes.setIds.length > 0) {
      <fl-part [words]="howWords()" [choices]="hows()" (chosen)="setHow($event)" />
    } @else {
      <fl-part [words]="asked().carries === 'none' ? 'no code at all' : 'any of'" [choices]="anyOrNone" (chosen)="setHow($event)" />
    }
    @for (code of codes(); track code.id) {
      <span class="code" [class.gone]="code.gone" [title]="code.gone ? 'This code was deleted' : ''">
        @if (!code.gone) {
          <fl-swatch [mark]="code.mark" [colour]="code.colour" />
        }
        {{ code.name }}<button (click)="drop(code.id)" [attr.aria-label]="'Without ' + code.name"><fl-icon name="x" /></button
      ></span>
    }
    <span class="anchor">
      <button class="part" (click)="choosing.set(!choosing())" [attr.aria-expanded]="choosing()">
        {{ codes().length > 0 ? 'and more' : 'choose codes' }}
      </button>
      @if (choosing()) {
        <fl-choose-codes [chosen]="asked().codes.codeIds" (changed)="setCodes({ codeIds: [...$event] })" (closed)="choosing.set(false)" />
      }
    </span>
    @if (here.codeSets().length > 0) {
      <fl-chosen-of
        label="Find a set of codes"
        none="or sets"
        [offers]="here.codeSets()"
        [chosen]="asked().codes.setIds"
        [nameOf]="setName"
        (changed)="setCodes({ setIds: $event })"
      />
    }
    @if (codes().length + asked().codes.setIds.length > 0) {
      <fl-part
        [words]="asked().codes.withUnder ? 'with what is under it' : 'by itself'"
        [choices]="unders"
        (chosen)="setCodes({ withUnder: $event })"
      />
    }
    <span>on</span>
    <fl-part [words]="reachWords()" [choices]="reaches" (chosen)="set({ reach: $event })" />
    <fl-given-part [given]="asked().given" (changed)="setGiven($event)" />
  `,
  styleUrl: './sentence.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CarriesPart {
  readonly asked = input.required<Carries>();
  /** It was just added: the list of codes opens. */
  readonly fresh = input(false);
  readonly changed = output<Carries>();
  protected readonly here = inject(AskedHere);
  protected readonly choosing = signal(false);
  protected readonly setName = (id: string): string => this.here.names()('codeSet', id);
  protected readonly codes = computed((): AskedCode[] =>
    this.asked().codes.codeIds.map(
      (id) => this.here.codeOf(id) ?? { id, name: this.here.names()('code', id), mark: '', colour: 0, gone: true },
    ),
  );
  private readonly named = computed(() => this.asked().codes.codeIds.length + this.asked().codes.setIds.length);
  protected readonly howWords = computed(() => {
    const { carries, number = 1 } = this.asked();
    return carries === 'at least' ? `at least ${number} of` : `${carries} of`;
  });
  protected readonly hows = computed((): Choice<How>[] => [
    { value: { carries: 'any' }, name: 'any of' },
    { value: { carries: 'all' }, name: 'all of' },
    { value: { carries: 'none' }, name: 'none of' },
    ...Array.from({ length: Math.max(0, this.named() - 2) }, (_, at) => ({
      value: { carries: 'at least' as const, number: at + 2 },
      name: `at least ${at + 2} of`,
    })),
  ]);
  protected readonly anyOrNone: readonly Choice<How>[] = [
    { value: { carries: 'any' }, name: 'any of' },
    { value: { carries: 'none' }, name: 'no code at all' },
  ];
  protected readonly unders: readonly Choice<boolean>[] = [
    { value: false, name: 'by itself' },
    { value: true, name: 'with what is under it' },
  ];
  protected readonly reaches: readonly Choice<Carries['reach']>[] = [
    { value: 'passage', name: 'the passage itself' },
    { value: 'overlap', name: 'the passage or one overlapping it' },
  ];
  protected readonly reachWords = computed(() => this.reaches.find((one) => one.value === this.asked().reach)!.name);

  constructor() {
    effect(() => {
      if (this.fresh()) this.choosing.set(true);
    });
  }

  protected set(fields: Partial<Carries>): void {
    this.changed.emit({ ...this.asked(), ...fields });
  }

  protected setHow({ carries, number }: How): void {
    const { number: _, ...rest } = this.asked();
    this.changed.emit({ ...rest, carries, ...(number !== undefined && { number }) });
  }

  protected setCodes(fields: Partial<Carries['codes']>): void {
    this.set({ codes: { ...this.asked().codes, ...fields } });
  }

  protected setGiven(given: Carries['given']): void {
    const { given: _, ...rest } = this.asked();
    this.changed.emit({ ...rest, ...(given && { given }) });
  }

  protected drop(id: Id): void {
    this.setCodes({ codeIds: this.asked().codes.codeIds.filter((one) => one !== id) });
  }
}
