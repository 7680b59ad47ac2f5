import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { parseValue } from '@core/attributes/values';
import type { Attribute } from '@core/model/case';
import type { Nested } from '@core/model/pattern';
import { canBeCut, tidyCuts } from '@core/patterns/bands';
import { selectData } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';

/** Attributes as levels of a pattern: what they are called, and where their numbers or dates are cut. */
@Injectable()
export class AttributeLevels {
  private readonly ask = inject(Ask);
  private readonly data = inject(Store).selectSignal(selectData);
  /** Those of cases first, each in the researcher's order. */
  readonly all = computed((): Attribute[] =>
    Object.values(this.data()?.tables.attribute ?? {}).sort((a, b) => a.of.localeCompare(b.of) || a.order - b.order),
  );

  nameOf({ attributeId }: Nested): string {
    return this.data()?.tables.attribute[attributeId]?.name ?? 'an attribute that is gone';
  }

  /** Where numbers or dates are cut, in words; null for what is not cut. */
  cutsOf({ attributeId, cuts }: Nested): string | null {
    const attribute = this.data()?.tables.attribute[attributeId];
    return attribute && canBeCut(attribute) ? (cuts?.length ? `cut at ${cuts.join(', ')}` : 'as they are') : null;
  }

  /** An attribute as a level; many numbers are cut tidily from the start. */
  level(attribute: Attribute): Nested {
    if (attribute.type !== 'number') return { attributeId: attribute.id };
    const records: readonly { readonly values: Readonly<Record<string, unknown>> }[] = Object.values(
      this.data()?.tables[attribute.of] ?? {},
    );
    const cuts = tidyCuts(
      records.flatMap(({ values }) => (typeof values[attribute.id] === 'number' ? [values[attribute.id] as number] : [])),
    );
    return { attributeId: attribute.id, ...(cuts.length > 0 && { cuts }) };
  }

  /** Asks where the values of an attribute are cut. @returns the level cut so; null where it was left as it is */
  async askCuts(level: Nested): Promise<Nested | null> {
    const attribute = this.data()?.tables.attribute[level.attributeId];
    if (!attribute) return null;
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
    return reply && { attributeId: level.attributeId, ...(cuts?.length && { cuts }) };
  }
}
