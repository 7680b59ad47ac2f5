import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { parseValue, showValue } from '@core/attributes/values';
import type { Attribute } from '@core/model/case';
import type { Fact } from '@core/model/passage-condition';
import { SentencePart, type Choice } from './sentence-part';
import { AskedHere } from './asked-here';
import { ChosenOf } from './chosen-of';

type How = Fact['comparison'];
const KNOWN: readonly How[] = ['is known', 'is not known'];
/** How values of a type can be compared; the first is the usual one. */
const HOWS: Readonly<Record<Attribute['type'], readonly How[]>> = {
  choice: ['is one of', 'is not', ...KNOWN],
  'yes/no': ['is', ...KNOWN],
  number: ['is', 'is over', 'is under', 'is not', ...KNOWN],
  date: ['is', 'is over', 'is under', ...KNOWN],
  text: ['holds', 'is', 'is not', ...KNOWN],
};
/** Over and under, as they are said of a day. */
const OF_DAYS: Readonly<Partial<Record<How, string>>> = { 'is over': 'is after', 'is under': 'is before' };

/** An attribute of the case whose words a passage is, or of its document, and what it is compared with. */
@Component({
  selector: 'fl-fact-part',
  imports: [ChosenOf, SentencePart],
  template: `
    <span>{{ lead() }}</span>
    <fl-part [words]="attribute()?.name ?? name()" [choices]="choices()" (chosen)="setAttribute($event)" />
    @if (attribute(); as attribute) {
      <fl-part [words]="howWords(asked().comparison)" [choices]="hows()" (chosen)="setHow($event)" />
      @if (!known(asked().comparison)) {
        @if (attribute.type === 'choice') {
          <fl-chosen-of label="Find a value" none="any value" [offers]="values()" [chosen]="chosenValues()" (changed)="setChosen($event)" />
        } @else if (attribute.type === 'yes/no') {
          <fl-part [words]="asked().values[0] === false ? 'no' : 'yes'" [choices]="yesNo" (chosen)="setValues([$event])" />
        } @else {
          <input
            #value
            [type]="attribute.type === 'date' ? 'date' : 'text'"
            [class.number]="attribute.type === 'number'"
            [value]="shown()"
            (change)="typed(value.value)"
            [attr.aria-label]="attribute.name + ' ' + asked().comparison"
          />
        }
      }
      @if (trouble()) {
        <span class="trouble" role="alert">{{ trouble() }}</span>
      }
    }
  `,
  styleUrl: './sentence.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FactPart {
  readonly asked = input.required<Fact>();
  /** Of what the attributes are that are offered. */
  readonly of = input.required<Attribute['of']>();
  readonly changed = output<Fact>();
  protected readonly here = inject(AskedHere);
  protected readonly trouble = signal('');
  protected readonly attribute = computed(() => this.here.attributeOf(this.asked().attributeId));
  protected readonly name = computed(() =>
    this.asked().attributeId ? this.here.names()('attribute', this.asked().attributeId) : 'choose an attribute',
  );
  protected readonly lead = computed(() => (this.of() === 'case' ? `are of a ${this.here.caseWord()} whose` : 'lie in a document whose'));
  protected readonly choices = computed((): Choice<Attribute>[] =>
    this.here.attributes().flatMap((one) => (one.of === this.of() ? [{ value: one, name: one.name }] : [])),
  );
  protected readonly hows = computed((): Choice<How>[] =>
    HOWS[this.attribute()?.type ?? 'text'].map((how) => ({ value: how, name: this.howWords(how) })),
  );
  protected readonly yesNo: readonly Choice<boolean>[] = [
    { value: true, name: 'yes' },
    { value: false, name: 'no' },
  ];
  protected readonly values = computed(() => (this.attribute()?.choices ?? []).map((name) => ({ id: name, name })));
  protected readonly chosenValues = computed(() => this.asked().values.map(String));
  protected readonly shown = computed(() => showValue(this.asked().values[0]));

  protected known(how: How): boolean {
    return KNOWN.includes(how);
  }

  protected howWords(how: How): string {
    if (how === 'is one of') return 'is';
    return (this.attribute()?.type === 'date' && OF_DAYS[how]) || how;
  }

  protected setAttribute(attribute: Attribute): void {
    this.trouble.set('');
    this.changed.emit({
      attributeId: attribute.id,
      comparison: attribute.type === 'yes/no' ? 'is' : 'is known',
      values: attribute.type === 'yes/no' ? [true] : [],
    });
  }

  protected setHow(comparison: How): void {
    const values = this.known(comparison)
      ? []
      : this.attribute()?.type === 'yes/no' && this.asked().values.length === 0
        ? [true]
        : this.asked().values;
    this.changed.emit({ ...this.asked(), comparison, values: comparison === 'is not' ? values.slice(0, 1) : values });
  }

  protected setValues(values: Fact['values']): void {
    this.changed.emit({ ...this.asked(), values });
  }

  protected setChosen(values: string[]): void {
    this.setValues(this.asked().comparison === 'is not' ? values.slice(-1) : values);
  }

  protected typed(raw: string): void {
    const type = this.attribute()!.type;
    const value = parseValue(raw, type);
    this.trouble.set(value === null ? (type === 'number' ? 'Write a number.' : 'Write a day.') : '');
    if (value !== null) this.setValues(value === undefined ? [] : [value]);
  }
}
