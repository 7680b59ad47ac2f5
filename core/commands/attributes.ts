import { quoted } from '../text/quoted';
import { compareValues, fits, parseValue, showValue } from '../attributes/values';
import type { Attribute, AttributeValue, Case } from '../model/case';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { AskedPattern } from '../model/pattern';
import type { ConditionPart } from '../model/set';
import type { StudyState } from '../model/study-state';
import { tidyLine } from '../text/normalise';
import { added, removed, updated, type Change, type RecordChange } from '../change/change';
import { stepsIn } from '../patterns/axis';
import { askingRewritten } from './asking';
import { settledSet } from './settle';
import { CommandError, counted, found, short, type Command } from '../change/command';

/** A record that carries values of an attribute. */
type Owner = Case | Document;

/** Attributes of cases or of documents, in their order. */
export const attributesOf = (state: StudyState, of: Attribute['of']): Attribute[] =>
  Object.values(state.tables.attribute)
    .filter((attribute) => attribute.of === of)
    .sort((a, b) => a.order - b.order || a.name.localeCompare(b.name));

const ownersOf = (state: StudyState, attribute: Attribute): Owner[] => Object.values<Owner>(state.tables[attribute.of]);

/** A record with a value set, or unset with undefined. */
function withValue(of: Attribute['of'], owner: Owner, attributeId: Id, value: AttributeValue | undefined): RecordChange {
  const values = { ...owner.values };
  if (value === undefined) delete values[attributeId];
  else values[attributeId] = value;
  return of === 'case' ? updated('case', owner as Case, { values }) : updated('document', owner as Document, { values });
}

/** Makes an attribute, behind the others. @throws CommandError for a name that is empty or taken */
export function addAttribute(of: Attribute['of'], rawName: string, type: Attribute['type'], choices: readonly string[] = []): Command {
  return (state, context) => {
    const name = freeName(state, of, rawName, null);
    const order = attributesOf(state, of).reduce((most, one) => Math.max(most, one.order + 1), 0);
    const attribute: Attribute = { id: context.newId(), name, of, type, choices: [...choices], order };
    return { change: [added('attribute', attribute)], sentence: `made the attribute ${short(name)} (${type})` };
  };
}

function freeName(state: StudyState, of: Attribute['of'], raw: string, self: Id | null): string {
  const name = tidyLine(raw);
  if (!name) throw new CommandError('An attribute needs a name.');
  const taken = attributesOf(state, of).some((one) => one.id !== self && one.name.toLocaleLowerCase() === name.toLocaleLowerCase());
  if (taken) throw new CommandError(`There is an attribute ${quoted(short(name))} already.`);
  return name;
}

/** Renames an attribute. */
export function renameAttribute(attributeId: Id, rawName: string): Command {
  return (state) => {
    const attribute = found(state.tables.attribute[attributeId], 'attribute');
    const name = freeName(state, attribute.of, rawName, attributeId);
    if (name === attribute.name) return null;
    return {
      change: [updated('attribute', attribute, { name })],
      sentence: `renamed the attribute ${short(attribute.name)} to ${short(name)}`,
    };
  };
}

/** Moves an attribute one place forward (-1) or back (1) among its like. */
export function moveAttribute(attributeId: Id, by: -1 | 1): Command {
  return (state) => {
    const attribute = found(state.tables.attribute[attributeId], 'attribute');
    const all = attributesOf(state, attribute.of);
    const from = all.findIndex((one) => one.id === attributeId);
    if (!all[from + by]) return null;
    const order = [...all];
    order.splice(from, 1);
    order.splice(from + by, 0, attribute);
    const change = order.flatMap((one, at) => (one.order === at ? [] : [updated('attribute', one, { order: at })]));
    return { change, sentence: `moved the attribute ${short(attribute.name)}` };
  };
}

/** Sets the order of a choice's values, or takes unused ones out. @throws CommandError where a value in use is missing */
export function setChoices(attributeId: Id, choices: readonly string[]): Command {
  return (state) => {
    const attribute = found(state.tables.attribute[attributeId], 'attribute');
    const wanted = [...new Set(choices.map(tidyLine).filter(Boolean))];
    const used = new Set(
      ownersOf(state, attribute).flatMap((owner) => (owner.values[attributeId] === undefined ? [] : [String(owner.values[attributeId])])),
    );
    const missing = [...used].find((value) => !wanted.includes(value));
    if (missing) throw new CommandError(`${quoted(short(missing))} is in use and cannot be taken out. Join it with another value first.`);
    if (wanted.join('\n') === attribute.choices.join('\n')) return null;
    return { change: [updated('attribute', attribute, { choices: wanted })], sentence: `ordered the values of ${short(attribute.name)}` };
  };
}

/** What a change of type makes of the values there are. */
export interface Conversion {
  readonly converted: number;
  /** Values that do not fit the type and would be taken away, each once, with how many records have it. */
  readonly misfits: readonly { readonly value: string; readonly count: number }[];
}

/** Looks ahead at {@link changeType}. */
export function conversionOf(state: StudyState, attributeId: Id, type: Attribute['type']): Conversion {
  const attribute = found(state.tables.attribute[attributeId], 'attribute');
  const misfits = new Map<string, number>();
  let converted = 0;
  for (const owner of ownersOf(state, attribute)) {
    const value = owner.values[attributeId];
    if (value === undefined) continue;
    const shown = showValue(value);
    if (parseValue(shown, type) === null) misfits.set(shown, (misfits.get(shown) ?? 0) + 1);
    else converted++;
  }
  return { converted, misfits: [...misfits].map(([value, count]) => ({ value, count })).sort((a, b) => b.count - a.count) };
}

/** Changes an attribute's type. Values that do not fit are taken away: show {@link conversionOf} first. */
export function changeType(attributeId: Id, type: Attribute['type']): Command {
  return (state, { answered }) => {
    const attribute = found(state.tables.attribute[attributeId], 'attribute');
    if (attribute.type === type) return null;
    const change: RecordChange[] = [];
    const seen = new Set<string>();
    let lost = 0;
    for (const owner of ownersOf(state, attribute)) {
      const before = owner.values[attributeId];
      if (before === undefined) continue;
      const after = parseValue(showValue(before), type) ?? undefined;
      if (after === undefined) lost++;
      else if (type === 'choice') seen.add(String(after));
      if (after !== before) change.push(withValue(attribute.of, owner, attributeId, after));
    }
    const choices = type === 'choice' ? [...seen].sort((a, b) => a.localeCompare(b, undefined, { numeric: true })) : [];
    change.unshift(updated('attribute', attribute, { type, choices }));
    // a value of the old type means nothing any more: the sets keep who is in them
    const asking = Object.values(state.tables.set).filter((set) =>
      set.condition?.some((part) => isAbout(part, attributeId) && !part.comparison.endsWith('known')),
    );
    change.push(...asking.map((set) => settledSet(state, set, answered)));
    // what is asked of it goes on asking for what the value is now, where it is one of the new type
    const asNow = (value: AttributeValue): AttributeValue => parseValue(showValue(value), type) ?? value;
    change.push(
      ...askingRewritten(state, (part) =>
        'attributeId' in part && part.attributeId === attributeId ? { ...part, values: part.values.map(asNow) } : part,
      ),
    );
    return {
      change,
      sentence: `made ${short(attribute.name)} a ${type}${lost > 0 ? `; ${counted(lost, 'value')} did not fit and went` : ''}`,
    };
  };
}

/** Deletes an attribute with all its values. */
export function deleteAttribute(attributeId: Id): Command {
  return (state) => {
    const attribute = found(state.tables.attribute[attributeId], 'attribute');
    const owners = ownersOf(state, attribute).filter((owner) => owner.values[attributeId] !== undefined);
    return {
      change: [removed('attribute', attribute)],
      sentence: `deleted the attribute ${short(attribute.name)} with ${counted(owners.length, 'value')}`,
    };
  };
}

/** A value to be set, as it was typed or pasted. */
export interface TypedValue {
  readonly ownerId: Id;
  readonly attributeId: Id;
  readonly raw: string;
}

/**
 * Sets values of cases or documents, as one step. A choice takes new values on the fly; an empty text takes a
 * value away. @throws CommandError where one does not fit its type, and then none is set
 */
export function setValues(typed: readonly TypedValue[]): Command {
  return (state) => {
    const owners = new Map<Id, Owner>();
    const choices = new Map<Id, string[]>();
    let count = 0;
    let about = '';
    let of: Attribute['of'] = 'case';
    for (const { ownerId, attributeId, raw } of typed) {
      const attribute = found(state.tables.attribute[attributeId], 'attribute');
      of = attribute.of;
      const stored = found<Owner>(state.tables[of][ownerId], of);
      const owner = owners.get(ownerId) ?? stored;
      const value = parseValue(raw, attribute.type);
      if (value === null)
        throw new CommandError(
          `${quoted(short(raw))} is not a ${attribute.type === 'yes/no' ? 'yes or no' : attribute.type}, which ${short(attribute.name)} takes.`,
        );
      if (value === owner.values[attributeId]) continue;
      const values = { ...owner.values };
      if (value === undefined) delete values[attributeId];
      else values[attributeId] = value;
      owners.set(ownerId, { ...owner, values });
      if (attribute.type === 'choice' && value !== undefined) {
        const known = choices.get(attributeId) ?? attribute.choices;
        if (!known.includes(String(value))) choices.set(attributeId, [...known, String(value)]);
      }
      about ||= `${attribute.name} of ${of === 'case' ? (stored as Case).name : (stored as Document).title}`;
      count++;
    }
    if (count === 0) return null;
    return {
      change: [
        ...[...choices].map(([id, list]) => updated('attribute', state.tables.attribute[id]!, { choices: list })),
        ...[...owners].map(([id, owner]) => ({ type: of, before: state.tables[of][id]!, after: owner }) as RecordChange),
      ],
      sentence: count === 1 ? `set ${short(about)}` : `set ${counted(count, 'value')}`,
    };
  };
}

/** How values become those of another attribute: values joined by hand, or numbers and dates grouped in bands. */
export type Recoding =
  | { readonly values: Readonly<Record<string, string>> }
  /** Bands by their lower bounds, ascending; what lies under the first has the first name. One name more than bounds. */
  | { readonly bounds: readonly (number | string)[]; readonly names: readonly string[] };

/** The value that a recoding makes of one, or undefined. */
export function recodedValue(value: AttributeValue | undefined, recoding: Recoding): string | undefined {
  if (value === undefined) return undefined;
  if ('values' in recoding)
    return Object.hasOwn(recoding.values, showValue(value)) ? recoding.values[showValue(value)] || undefined : showValue(value);
  const band = recoding.bounds.filter((bound) => (typeof bound === 'number' ? Number(value) >= bound : String(value) >= bound)).length;
  return recoding.names[band];
}

/** Makes a new choice attribute from another: values joined, or numbers and dates in bands. The old one stays. */
export function recode(attributeId: Id, rawName: string, recoding: Recoding): Command {
  return (state, context) => {
    const source = found(state.tables.attribute[attributeId], 'attribute');
    const name = freeName(state, source.of, rawName, null);
    const owners = ownersOf(state, source).map((owner) => ({ owner, value: recodedValue(owner.values[attributeId], recoding) }));
    const seen = new Set(owners.flatMap(({ value }) => (value === undefined ? [] : [value])));
    const inOrder =
      'names' in recoding
        ? recoding.names.filter((one) => seen.has(one))
        : [
            ...new Set(
              [...source.choices, ...Object.keys(recoding.values)]
                .map((one) => recodedValue(one, recoding))
                .filter((one) => one !== undefined && seen.has(one)),
            ),
          ];
    const choices = [...inOrder, ...[...seen].filter((one) => !inOrder.includes(one))] as string[];
    const attribute: Attribute = { id: context.newId(), name, of: source.of, type: 'choice', choices, order: source.order + 0.5 };
    return {
      change: [
        added('attribute', attribute),
        ...owners.flatMap(({ owner, value }) => (value === undefined ? [] : [withValue(source.of, owner, attribute.id, value)])),
      ],
      sentence: `made ${short(name)} from ${short(source.name)}`,
    };
  };
}

/** Joins values of a choice into one, in place. */
export function joinChoices(attributeId: Id, values: readonly string[], into: string): Command {
  return (state) => {
    const attribute = found(state.tables.attribute[attributeId], 'attribute');
    const target = tidyLine(into);
    if (!target) throw new CommandError('The joined value needs a name.');
    const gone = new Set(values);
    const owners = ownersOf(state, attribute).filter(
      (owner) => gone.has(String(owner.values[attributeId])) && owner.values[attributeId] !== target,
    );
    const first = attribute.choices.findIndex((one) => gone.has(one) || one === target);
    const rest = attribute.choices.filter((one) => !gone.has(one) && one !== target);
    const choices = [...rest.slice(0, Math.max(0, first)), target, ...rest.slice(Math.max(0, first))];
    const sets = Object.values(state.tables.set).flatMap((set) => {
      const condition = set.condition?.map((part) =>
        isAbout(part, attributeId) && gone.has(String(part.value)) ? { ...part, value: target } : part,
      );
      return condition?.some((part, at) => part !== set.condition![at]) ? [updated('set', set, { condition })] : [];
    });
    const asking = askingRewritten(
      state,
      (part) =>
        'attributeId' in part && part.attributeId === attributeId
          ? { ...part, values: [...new Set(part.values.map((value) => (gone.has(String(value)) ? target : value)))] }
          : part,
      (asked) => groupOfValue(asked, attributeId, (value) => (gone.has(value) ? target : value)),
    );
    return {
      change: [
        updated('attribute', attribute, { choices }),
        ...owners.map((owner) => withValue(attribute.of, owner, attributeId, target)),
        ...sets,
        ...asking,
      ],
      sentence: `joined ${counted(values.length, 'value')} of ${short(attribute.name)} into ${short(target)}`,
    };
  };
}

/** A pattern of what is typical of a group, where the group is of values: its key with what they are now. */
function groupOfValue(asked: AskedPattern, attributeId: Id, now: (value: string) => string): AskedPattern {
  if (asked.pattern !== 'words' || !asked.typical || !('nested' in asked.typical.groups)) return asked;
  const { groups, key } = asked.typical;
  const { nested } = groups;
  const steps = stepsIn(key).map((step, at) =>
    nested[at]?.attributeId === attributeId && step.startsWith('=') ? `=${now(step.slice(1))}` : step,
  );
  return steps.length === 0 ? asked : { ...asked, typical: { groups, key: JSON.stringify(steps) } };
}

const isAbout = ({ what }: ConditionPart, attributeId: Id): boolean =>
  typeof what === 'object' && 'attributeId' in what && what.attributeId === attributeId;

/** How often each value occurs, in the attribute's own order; the unknown apart. */
export interface Distribution {
  readonly values: readonly { readonly value: string; readonly count: number }[];
  readonly unknown: number;
  readonly total: number;
}

/** Counts values of an attribute over its cases or documents. */
export function distributionOf(attribute: Attribute, owners: readonly Pick<Owner, 'values'>[]): Distribution {
  const counts = new Map<AttributeValue, number>();
  let unknown = 0;
  for (const owner of owners) {
    const value = owner.values[attribute.id];
    if (value === undefined || !fits(value, attribute.type)) unknown++;
    else counts.set(value, (counts.get(value) ?? 0) + 1);
  }
  const values = [...counts]
    .sort(([a], [b]) => compareValues(attribute, a, b))
    .map(([value, count]) => ({ value: showValue(value), count }));
  return { values, unknown, total: owners.length };
}

/** A change of several records given by hand; used where a plan has been shown and agreed to. */
export const asPlanned =
  (change: Change, sentence: string): Command =>
  () =>
    change.length === 0 ? null : { change, sentence };
