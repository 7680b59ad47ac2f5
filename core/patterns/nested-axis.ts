import { compareValues, showValue } from '../attributes/values';
import type { Attribute, AttributeValue } from '../model/case';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { Nested } from '../model/pattern';
import type { AskedStudy } from '../queries/asked-study';
import type { Entry, GroupAxis } from './axis';
import { bandName, bandOf } from './bands';
import { casesPresent, ofCases } from './case-axis';

/** A value on one level of nested attributes: what it is called, its key, and how it is ordered. */
export interface Step {
  readonly key: string;
  readonly name: string;
  /** Null for what is not known, which comes last. */
  readonly value: AttributeValue | null;
}

const UNKNOWN: Step = { key: '?', name: 'not known', value: null };
const NOBODY: Step = { key: '', name: 'of nobody', value: null };

export interface Level {
  readonly attribute: Attribute;
  stepOf(value: AttributeValue | undefined): Step;
}

/**
 * Values of up to three attributes nested in each other, the first the outermost: one group for each combination that
 * occurs. Attributes of cases are those of the cases whose a place is. Values come as the attribute orders them, bands
 * from the lowest, what is not known last.
 */
export function nestedAxis(nested: readonly Nested[], study: AskedStudy, documents: readonly Document[]): GroupAxis {
  const levels = nested.flatMap(({ attributeId, cuts = [] }) => {
    const attribute = study.tables.attribute[attributeId];
    return attribute ? [levelOf(attribute, cuts)] : [];
  });
  if (levels.length === 0) return { entries: [{ key: 'all', path: ['all'] }], needsSpoken: () => false, of: () => [0] };
  const stepsOf = (document: Document, caseId: Id | null): Step[] =>
    levels.map(({ attribute, stepOf }) => {
      if (attribute.of === 'document') return stepOf(document.values[attribute.id]);
      return caseId === null ? NOBODY : stepOf(study.tables.case[caseId]?.values[attribute.id]);
    });
  const byDocuments = levels.some(({ attribute }) => attribute.of === 'document');
  const byCases = levels.some(({ attribute }) => attribute.of === 'case');
  const found = new Map<string, Step[]>();
  /** The keys of the groups of cases: where nothing depends on the document, a case is in the same group everywhere. */
  const keys = new Map<Id | null, string>();
  const keyFor = (document: Document, caseId: Id | null): string => {
    let key = byDocuments ? undefined : keys.get(caseId);
    if (key !== undefined) return key;
    const steps = stepsOf(document, caseId);
    keys.set(caseId, (key = keyOf(steps)));
    if (!found.has(key)) found.set(key, steps);
    return key;
  };
  for (const document of documents) for (const id of byCases ? [null, ...casesPresent(study, [document])] : [null]) keyFor(document, id);
  const inOrder = [...found].sort(([, a], [, b]) => compareSteps(levels, a, b));
  const placeOf = new Map(inOrder.map(([key], at) => [key, [at]]));
  const entries = inOrder.map(([key, steps]): Entry => ({
    key,
    path: steps.map((step) => step.name),
    ...(steps.includes(NOBODY) && { rest: true }),
  }));
  const groupsOf = (document: Document, caseId: Id | null): readonly number[] => placeOf.get(keyFor(document, caseId)) ?? [];
  if (!byCases) return { entries, needsSpoken: () => false, of: ({ document }) => groupsOf(document, null) };
  return ofCases(study, entries, groupsOf, (document) => groupsOf(document, null));
}

/** The key of the group of some values, the outermost first. */
export const keyOf = (steps: readonly Step[]): string => JSON.stringify(steps.map((step) => step.key));

/** What values of an attribute are called, cut where that is asked. */
export function levelOf(attribute: Attribute, cuts: readonly (number | string)[]): Level {
  if (cuts.length === 0)
    return {
      attribute,
      stepOf: (value) => (value === undefined ? UNKNOWN : { key: `=${String(value)}`, name: showValue(value), value }),
    };
  const sorted = [...cuts].sort((a, b) => compareValues(attribute, a, b));
  return {
    attribute,
    stepOf: (value) => {
      if (value === undefined) return UNKNOWN;
      const band = bandOf(attribute, value, sorted);
      return { key: `#${band}`, name: bandName(attribute, sorted, band), value: band };
    },
  };
}

/** Orders groups by their values, level by level. */
export function compareSteps(levels: readonly Level[], a: readonly Step[], b: readonly Step[]): number {
  for (const [at, { attribute }] of levels.entries()) {
    const [one, other] = [a[at]!, b[at]!];
    if (one.key === other.key) continue;
    if (one.value === null || other.value === null) return rank(one) - rank(other);
    return compareValues(attribute, one.value, other.value);
  }
  return 0;
}

/** What is known stands before what is not, and that before what is nobody's. */
const rank = (step: Step): number => (step === NOBODY ? 2 : step === UNKNOWN ? 1 : 0);
