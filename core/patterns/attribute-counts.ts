import type { Attribute, AttributeValue } from '../model/case';
import type { Id } from '../model/ids';
import type { AttributesAsked, Nested } from '../model/pattern';
import type { StudyState } from '../model/study-state';
import type { Entry } from './axis';
import { compareSteps, keyOf, levelOf, type Step } from './nested-axis';

/** How many cases or documents have which value. */
export interface AttributeCounts {
  readonly of: 'case' | 'document';
  /** Values in their order, those that a choice offers also where nothing has them; what is not known last. */
  readonly rows: readonly Entry[];
  /** Values of the second attribute; one for all where there is none. */
  readonly columns: readonly Entry[];
  /** Row by row, `(columns + 1)` each, with one more row for all. */
  readonly counts: Float64Array;
  /** What is counted, and the places of its values. */
  readonly members: readonly { readonly id: Id; readonly row: number; readonly column: number }[];
  /** Of a number: what it comes to over those of which it is known; null for other attributes. */
  readonly summary: NumberSummary | null;
}

export interface NumberSummary {
  readonly known: number;
  readonly least: number;
  readonly most: number;
  readonly mean: number;
  readonly median: number;
  /** Of the sample, with n − 1; null of a single number. */
  readonly deviation: number | null;
}

/**
 * Counts cases or documents by one attribute, or by two against each other; each is counted once.
 * @param ids what is counted: cases or documents, as the attribute is of the one or the other
 * @returns null where the attribute is gone
 */
export function attributeCounts(
  asked: Pick<AttributesAsked, 'of' | 'against'>,
  tables: Pick<StudyState['tables'], 'attribute' | 'case' | 'document'>,
  ids: readonly Id[],
): AttributeCounts | null {
  const first = asked.of && axisOf(asked.of, tables.attribute);
  if (!first) return null;
  const { of } = first.attribute;
  const second = asked.against && axisOf(asked.against, tables.attribute);
  const against = second?.attribute.of === of ? second : null;
  const valuesOf = (id: Id) => (of === 'case' ? tables.case[id]?.values : tables.document[id]?.values) ?? {};
  for (const id of ids) {
    first.meet(valuesOf(id));
    against?.meet(valuesOf(id));
  }
  const rows = first.ordered();
  const columns = against?.ordered() ?? [{ key: 'all', path: ['all'] }];
  const placeIn = (entries: readonly Entry[]) => new Map(entries.map(({ key }, at) => [key, at]));
  const [rowOf, columnOf] = [placeIn(rows), placeIn(columns)];
  const members = ids.map((id) => ({
    id,
    row: rowOf.get(first.keyOf(valuesOf(id)))!,
    column: against ? columnOf.get(against.keyOf(valuesOf(id)))! : 0,
  }));
  const width = columns.length + 1;
  const counts = new Float64Array((rows.length + 1) * width);
  for (const { row, column } of members)
    for (const r of [row, rows.length]) for (const c of [column, columns.length]) counts[r * width + c]!++;
  const numbers = ids.flatMap((id) => {
    const value = valuesOf(id)[first.attribute.id];
    return typeof value === 'number' ? [value] : [];
  });
  return { of, rows, columns, counts, members, summary: first.attribute.type === 'number' ? summaryOf(numbers) : null };
}

type Values = Readonly<Record<Id, AttributeValue>>;

/** The values of an attribute that were met, or that it offers. */
function axisOf({ attributeId, cuts = [] }: Nested, attributes: Readonly<Record<Id, Attribute>>) {
  const attribute = attributes[attributeId];
  if (!attribute) return null;
  const level = levelOf(attribute, cuts);
  const steps = new Map<string, Step>();
  const meet = (value: AttributeValue | undefined): void => {
    const step = level.stepOf(value);
    steps.set(step.key, step);
  };
  if (attribute.type === 'choice') attribute.choices.forEach(meet);
  return {
    attribute,
    meet: (values: Values): void => meet(values[attributeId]),
    keyOf: (values: Values): string => keyOf([level.stepOf(values[attributeId])]),
    ordered: (): Entry[] =>
      [...steps.values()].sort((a, b) => compareSteps([level], [a], [b])).map((step) => ({ key: keyOf([step]), path: [step.name] })),
  };
}

/** Mean, median and spread of some numbers; null of none. */
export function summaryOf(numbers: readonly number[]): NumberSummary | null {
  if (numbers.length === 0) return null;
  const sorted = [...numbers].sort((a, b) => a - b);
  const known = sorted.length;
  const mean = sorted.reduce((sum, one) => sum + one, 0) / known;
  const middle = Math.floor(known / 2);
  const squares = sorted.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  return {
    known,
    least: sorted[0]!,
    most: sorted[known - 1]!,
    mean,
    median: known % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2,
    deviation: known > 1 ? Math.sqrt(squares / (known - 1)) : null,
  };
}
