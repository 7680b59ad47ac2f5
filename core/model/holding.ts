import * as z from 'zod';
import type { Id } from './ids';
import { markOf, type Mark, type WhenGone } from './pointing';

/** What answers for everything a record holds, asked for each in turn. Giving back the very same changes nothing. */
export interface Holder {
  /** @returns the id now, or null where the record is gone */
  id(of: string, id: Id, whenGone: WhenGone): Id | null;
  /** @returns where the passage is now, or null where it is gone */
  passage(at: HeldPassage, whenGone: WhenGone): HeldPassage | null;
  /** @returns what is left of it, in as many pieces as it is in now */
  stretch(stretch: HeldStretch): readonly HeldStretch[];
  /** @returns the Markdown with its links as they are now */
  links(markdown: string): string;
}

export interface HeldPassage {
  readonly documentId: Id;
  readonly id: Id;
}

export interface HeldStretch {
  readonly documentId: Id;
  readonly start: number;
  readonly end: number;
}

/** Walks a value; gives it back as it is now, the very same where nothing in it changed. */
type Walk = (value: unknown, holder: Holder, beside: Readonly<Record<string, unknown>>) => unknown;

/** The value is gone: what holds it decides what that means. */
const GONE = Symbol('gone');
/** The value is gone, and the list it stands in means nothing without it. */
const LIST_GONE = Symbol('gone with its list');
/** A value that has become several; only lists can hold that. */
class Pieces {
  constructor(readonly some: readonly unknown[]) {}
}

const NOTHING_BESIDE = {};

/**
 * A record after everything it holds was asked for, by what its schema is marked with.
 * @returns the very same record where nothing changed; null where it cannot be without something that is gone
 */
export function heldBy<T>(schema: z.ZodType<T>, record: T, holder: Holder): T | null {
  const walk = walkOf(schema);
  if (!walk) return record;
  const now = walk(record, holder, NOTHING_BESIDE);
  return now === GONE || now === LIST_GONE ? null : (now as T);
}

const walks = new WeakMap<z.ZodType, Walk | null>();

function walkOf(schema: z.ZodType): Walk | null {
  let walk = walks.get(schema);
  if (walk === undefined) {
    // a schema that lies within itself is walked by what its walk will be
    walks.set(schema, (value, holder, beside) => walks.get(schema)?.(value, holder, beside) ?? value);
    walks.set(schema, (walk = made(schema)));
  }
  return walk;
}

/** Every mark in a schema. */
export function marksIn(schema: z.ZodType, seen = new Set<z.ZodType>()): Mark[] {
  if (seen.has(schema)) return [];
  seen.add(schema);
  const mark = markOf(schema);
  return mark ? [mark] : partsOf(schema).flatMap((part) => marksIn(part, seen));
}

function partsOf(schema: z.ZodType): readonly z.ZodType[] {
  if (schema instanceof z.ZodObject) return Object.values(schema.shape) as z.ZodType[];
  if (schema instanceof z.ZodArray) return [schema.element as z.ZodType];
  if (schema instanceof z.ZodRecord) return [schema.keyType as z.ZodType, schema.valueType as z.ZodType];
  if (schema instanceof z.ZodUnion) return schema.options as readonly z.ZodType[];
  if (schema instanceof z.ZodNullable || schema instanceof z.ZodOptional || schema instanceof z.ZodReadonly || schema instanceof z.ZodLazy)
    return [schema.unwrap() as z.ZodType];
  return [];
}

/** The walk of a schema, or null where nothing in it is marked. */
function made(schema: z.ZodType): Walk | null {
  return markedWalk(schema) ?? builtWalk(schema);
}

function markedWalk(schema: z.ZodType): Walk | null {
  const mark = markOf(schema);
  switch (mark?.holds) {
    case 'id':
      return (value, holder, beside) => {
        const of = typeof mark.of === 'string' ? mark.of : mark.of(beside);
        if (of === null) return value;
        return holder.id(of, String(value), mark.whenGone) ?? (mark.whenGone === 'whole list' ? LIST_GONE : GONE);
      };
    case 'passage':
      return (value, holder) => {
        const fields = value as Record<string, Id>;
        const [documentId, id] = [fields[mark.document]!, fields[mark.id]!];
        const now = holder.passage({ documentId, id }, mark.whenGone);
        if (!now) {
          const document = mark.insteadDocument && holder.id('document', documentId, 'emptied');
          return document ? { [mark.insteadDocument!]: 'document', id: document } : GONE;
        }
        return now.documentId === documentId && now.id === id ? value : { ...fields, [mark.document]: now.documentId, [mark.id]: now.id };
      };
    case 'stretch':
      return (value, holder) => {
        const pieces = holder.stretch(value as HeldStretch);
        if (pieces.length === 1) return pieces[0];
        return pieces.length === 0 ? GONE : new Pieces(pieces);
      };
    case 'links':
      return (value, holder) => holder.links(value as string);
    default:
      return null;
  }
}

function builtWalk(schema: z.ZodType): Walk | null {
  if (schema instanceof z.ZodObject) return objectWalk(schema);
  if (schema instanceof z.ZodArray) return arrayWalk(schema.element as z.ZodType);
  if (schema instanceof z.ZodRecord) return recordWalk(schema.keyType as z.ZodType, schema.valueType as z.ZodType);
  if (schema instanceof z.ZodUnion) return unionWalk(schema.options as readonly z.ZodType[]);
  if (schema instanceof z.ZodNullable) return withoutIt(schema.unwrap() as z.ZodType, null);
  if (schema instanceof z.ZodOptional) return withoutIt(schema.unwrap() as z.ZodType, undefined);
  if (schema instanceof z.ZodReadonly || schema instanceof z.ZodLazy) return walkOf(schema.unwrap() as z.ZodType);
  return null;
}

/** What can do without its value is empty when that is gone. */
function withoutIt(inner: z.ZodType, empty: null | undefined): Walk | null {
  const walk = walkOf(inner);
  if (!walk) return null;
  return (value, holder, beside) => {
    if (value === empty) return value;
    const now = walk(value, holder, beside);
    return now === GONE || now === LIST_GONE ? empty : now;
  };
}

function objectWalk(schema: z.ZodObject): Walk | null {
  const fields = Object.entries(schema.shape).flatMap(([key, field]) => {
    const walk = walkOf(field as z.ZodType);
    return walk ? [[key, walk] as const] : [];
  });
  if (fields.length === 0) return null;
  return (value, holder) => {
    const before = value as Record<string, unknown>;
    let now: Record<string, unknown> | null = null;
    for (const [key, walk] of fields) {
      if (!(key in before)) continue;
      const held = walk(before[key], holder, before);
      if (held === GONE || held === LIST_GONE) return GONE;
      if (held === before[key]) continue;
      now ??= { ...before };
      if (held === undefined) delete now[key];
      else now[key] = held;
    }
    return now ?? value;
  };
}

function arrayWalk(element: z.ZodType): Walk | null {
  const walk = walkOf(element);
  if (!walk) return null;
  /** Ids of one list are each there once. */
  const distinct = markOf(element)?.holds === 'id';
  return (value, holder, beside) => {
    const before = value as readonly unknown[];
    const now: unknown[] = [];
    let same = true;
    for (const one of before) {
      const held = walk(one, holder, beside);
      same &&= held === one;
      if (held === LIST_GONE) return GONE;
      if (held instanceof Pieces) now.push(...held.some);
      else if (held !== GONE) now.push(held);
    }
    if (same) return value;
    return distinct ? [...new Set(now)] : now;
  };
}

function recordWalk(key: z.ZodType, inner: z.ZodType): Walk | null {
  const [keyWalk, valueWalk] = [walkOf(key), walkOf(inner)];
  if (!keyWalk && !valueWalk) return null;
  return (value, holder, beside) => {
    const before = value as Readonly<Record<string, unknown>>;
    const now: Record<string, unknown> = {};
    let same = true;
    for (const [at, one] of Object.entries(before)) {
      const held = keyWalk ? keyWalk(at, holder, beside) : at;
      const content = valueWalk ? valueWalk(one, holder, beside) : one;
      same &&= held === at && content === one;
      // what came to the same key by moving does not take the place of what is there
      if (typeof held === 'string' && typeof content !== 'symbol' && (held === at || !Object.hasOwn(before, held))) now[held] = content;
    }
    return same ? value : now;
  };
}

function unionWalk(options: readonly z.ZodType[]): Walk | null {
  const walks = options.map((option) => ({ option, walk: walkOf(option) }));
  if (walks.every(({ walk }) => walk === null)) return null;
  return (value, holder, beside) => walks.find(({ option }) => mayBe(option, value))?.walk?.(value, holder, beside) ?? value;
}

/** Whether a value is of an option of a union, told by its literals and the names of its fields. */
function mayBe(option: z.ZodType, value: unknown): boolean {
  if (!(option instanceof z.ZodObject)) return option.safeParse(value).success;
  if (typeof value !== 'object' || value === null) return false;
  const shape = option.shape as Readonly<Record<string, z.ZodType>>;
  return Object.entries(shape).every(([key, field]) => {
    const there = (value as Record<string, unknown>)[key];
    return field instanceof z.ZodLiteral ? field.values.has(there as never) : there !== undefined || field.safeParse(undefined).success;
  });
}
