import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Attribute } from '@core/model/case';
import { GROUPED_BY, MOST_NESTED, type GroupsAsked, type Nested } from '@core/model/pattern';
import { parseValue } from '@core/attributes/values';
import { canBeCut, tidyCuts } from '@core/patterns/bands';
import { selectData, selectStudy } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';

/** Groups of the material, as a part of a pattern's sentence: one division, or up to three attributes nested in each other. */
@Component({
  selector: 'fl-groups-part',
  imports: [SentencePart],
  template: `
    @if (nested(); as nested) {
      @for (level of nested; track level.attributeId; let at = $index) {
        @if (at > 0) {
          <span>within</span>
        }
        <fl-part [words]="nameOf(level)" [choices]="choicesAt(at)" (chosen)="choose($event, at)" />
        @if (cutsOf(level); as cuts) {
          <button class="part" (click)="askCuts(at)">{{ cuts }}</button>
        }
      }
      @if (nested.length < most && rest().length > 0) {
        <fl-part words="and within…" [choices]="rest()" (chosen)="choose($event, nested.length)" />
      }
    } @else {
      <fl-part [words]="words()" [choices]="choices()" (chosen)="choose($event, 0)" />
    }
  `,
  styles: `
    /* set apart by what a blank is: what stands between parts of a template goes */
    :host {
      display: inline-flex;
      flex-wrap: wrap;
      gap: 0 0.3em;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GroupsPart {
  readonly groups = input.required<GroupsAsked>();
  /** What stands in front of the name of a group: “each document”. */
  readonly each = input('each');
  readonly changed = output<GroupsAsked>();
  private readonly store = inject(Store);
  private readonly ask = inject(Ask);
  private readonly data = this.store.selectSignal(selectData);
  private readonly study = this.store.selectSignal(selectStudy);
  protected readonly most = MOST_NESTED;
  private readonly attributes = computed((): Attribute[] =>
    Object.values(this.data()?.tables.attribute ?? {}).sort((a, b) => a.of.localeCompare(b.of) || a.order - b.order),
  );
  protected readonly nested = computed(() => {
    const groups = this.groups();
    return 'nested' in groups && groups.nested.length > 0 ? groups.nested : null;
  });
  protected readonly words = computed(() => {
    const groups = this.groups();
    return this.nameOfDivision('by' in groups ? groups.by : 'everything');
  });
  protected readonly choices = computed((): Choice<GroupsAsked>[] => [
    ...GROUPED_BY.map((by) => ({ value: { by }, name: this.nameOfDivision(by) })),
    ...this.attributes().map((attribute) => ({ value: { nested: [this.level(attribute)] }, name: `each ${attribute.name}` })),
  ]);
  /** Attributes that can be nested further. */
  protected readonly rest = computed((): Choice<GroupsAsked>[] => {
    const used = new Set((this.nested() ?? []).map((level) => level.attributeId));
    return this.attributes()
      .filter((attribute) => !used.has(attribute.id))
      .map((attribute) => ({ value: { nested: [this.level(attribute)] }, name: attribute.name }));
  });

  /** A level that was chosen can become another, or go. */
  protected choicesAt(at: number): Choice<GroupsAsked>[] {
    return at === 0 ? this.choices() : [{ value: { nested: [] }, name: 'no further' }, ...this.rest()];
  }

  protected nameOf({ attributeId }: Nested): string {
    return this.data()?.tables.attribute[attributeId]?.name ?? 'an attribute that is gone';
  }

  /** Where numbers or dates are cut, in words; null for what is not cut. */
  protected cutsOf({ attributeId, cuts }: Nested): string | null {
    const attribute = this.data()?.tables.attribute[attributeId];
    return attribute && canBeCut(attribute) ? (cuts?.length ? `cut at ${cuts.join(', ')}` : 'as they are') : null;
  }

  protected choose(value: GroupsAsked, at: number): void {
    const nested = this.nested() ?? [];
    if (at === 0 || !('nested' in value)) return this.changed.emit(value);
    this.changed.emit({ nested: [...nested.slice(0, at), ...value.nested, ...nested.slice(at + 1)] });
  }

  /** Asks where the values of an attribute are cut. */
  protected async askCuts(at: number): Promise<void> {
    const nested = this.nested()!;
    const level = nested[at]!;
    const attribute = this.data()?.tables.attribute[level.attributeId];
    if (!attribute) return;
    const kind = attribute.type === 'date' ? 'days' : 'numbers';
    let cuts: Nested['cuts'];
    const reply = await this.ask.reply({
      title: `Where ${attribute.name} is cut`,
      lines: [`Each of the ${kind} begins the next group. With none, every value is a group of its own.`],
      label: `${kind[0]!.toUpperCase()}${kind.slice(1)}, with semicolons or blanks between them`,
      text: (level.cuts ?? []).join('; '),
      yes: 'Cut there',
      tries: (typed) => {
        const read = typed.split(/[;\s]+/).filter(Boolean);
        const values = read.map((one) => parseValue(one, attribute.type));
        const wrong = read.find((_, nth) => values[nth] === null || values[nth] === undefined);
        if (wrong !== undefined) return `“${wrong}” is no ${attribute.type === 'date' ? 'day, as 2025-01-31' : 'number'}.`;
        if (values.length > 50) return 'At most 50 cuts.';
        cuts = [...new Set(values as (number | string)[])].sort((a, b) => (a < b ? -1 : 1));
        return null;
      },
    });
    if (reply === null) return;
    this.changed.emit({
      nested: nested.map((one, nth) => (nth === at ? { attributeId: one.attributeId, ...(cuts?.length && { cuts }) } : one)),
    });
  }

  /** An attribute as a level; many numbers are cut tidily from the start. */
  private level(attribute: Attribute): Nested {
    if (attribute.type !== 'number') return { attributeId: attribute.id };
    const records: readonly { readonly values: Readonly<Record<string, unknown>> }[] = Object.values(
      this.data()?.tables[attribute.of] ?? {},
    );
    const cuts = tidyCuts(
      records.flatMap(({ values }) => (typeof values[attribute.id] === 'number' ? [values[attribute.id] as number] : [])),
    );
    return { attributeId: attribute.id, ...(cuts.length > 0 && { cuts }) };
  }

  private nameOfDivision(by: (typeof GROUPED_BY)[number]): string {
    const names: Readonly<Record<typeof by, string>> = {
      ...{
        everything: 'all of it',
        document: 'document',
        case: this.study()?.caseWord ?? 'case',
        folder: 'folder',
        kind: 'kind of document',
      },
      ...{ set: 'set', speaker: 'speaker', question: 'question', coder: 'coder', month: 'month' },
    };
    return by === 'everything' ? names[by] : `${this.each()} ${names[by]}`;
  }
}
