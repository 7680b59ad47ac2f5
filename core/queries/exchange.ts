import { heldBy, type Holder } from '../model/holding';
import type { Id, NewId } from '../model/ids';
import { QuestionSchema, type Question } from '../model/query';
import type { TableType } from '../model/records';
import type { StudyState } from '../model/study-state';
import { pathOf as codePath } from '../codebook/exchange/plan-codes';
import { namesIn } from './words';

/** What a query is as text: `docs/queries.md`. */
export const QUERY_FORMAT = 'filum-query';

/** Between the codes of a path, from the top: no name is without a blank beside it where it holds one. */
const UNDER = ' / ';

/** A query that was pasted cannot be read. */
export class QueryFormatError extends Error {}

/** A name that finds a record again: of a code its path from the top, of all others what they are called. */
function pathOf(state: Pick<StudyState, 'tables'>, of: TableType, id: Id, gone: Question['gone']): string {
  const name = namesIn(state, gone);
  if (!state.tables[of][id]) return gone?.[id] ?? '';
  if (of !== 'code') return name(of, id);
  return codePath(state.tables.code, id).join(UNDER);
}

/** A query as JSON that another study can read: everything it points at by name. */
export function queryAsJson(state: Pick<StudyState, 'tables'>, name: string, { all, gone }: Question): string {
  const named = heldBy(
    QuestionSchema,
    { all },
    {
      id: (of, id) => pathOf(state, of as TableType, id, gone),
      passage: (at) => at,
      stretch: (one) => [one],
      links: (markdown) => markdown,
    },
  );
  return JSON.stringify({ format: QUERY_FORMAT, version: 1, name, all: named!.all }, null, 2);
}

/** A query that was read, with the names of what is not here. */
export interface PastedQuery {
  readonly name: string;
  readonly question: Question;
  readonly missing: readonly string[];
}

/**
 * Reads a query from JSON, and finds what it asks for by name. What is not here keeps its place under its name, and
 * finds nothing. Where several have one name, the first is taken.
 * @throws QueryFormatError in words
 */
export function queryFromJson(state: Pick<StudyState, 'tables'>, json: string, newId: NewId): PastedQuery {
  let read: unknown;
  try {
    read = JSON.parse(json);
  } catch {
    throw new QueryFormatError('This is no query: it is not JSON. Copy a kept query with “Copy as JSON”, and paste all of it.');
  }
  const { format, version, name, all } = (read ?? {}) as Record<string, unknown>;
  if (format !== QUERY_FORMAT || !Array.isArray(all))
    throw new QueryFormatError(`This JSON is no query: it lacks "format": "${QUERY_FORMAT}" and the list "all".`);
  if (version !== 1) throw new QueryFormatError(`This query is of version ${String(version)}; this Filum reads version 1.`);
  if (nestedDeep(all) > 40) throw new QueryFormatError('This query has parts within parts, deeper than anybody reads.');
  const missing = new Map<string, { readonly id: Id; readonly name: string }>();
  const finder = new Finder(state);
  const question = walked(all, {
    id: (of, path) => {
      const found = finder.find(of as TableType, path);
      if (found) return found;
      const key = `${of} ${path}`;
      if (!missing.has(key)) missing.set(key, { id: newId(), name: path });
      return missing.get(key)!.id;
    },
    passage: (at) => at,
    stretch: (one) => [one],
    links: (markdown) => markdown,
  });
  const gone = Object.fromEntries([...missing.values()].map((one) => [one.id, one.name.slice(0, 500) || 'something']));
  const parsed = QuestionSchema.safeParse({ ...(question as object), ...(missing.size > 0 && { gone }) });
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new QueryFormatError(
      `This query cannot be read: at ${['all', ...(issue?.path.slice(1) ?? [])].join(' → ')}: ${issue?.message ?? 'something is wrong'}.`,
    );
  }
  return {
    name: typeof name === 'string' ? name.slice(0, 500) : '',
    question: parsed.data,
    missing: [...missing.values()].map((one) => one.name),
  };
}

/** The parts with what they point at replaced. What is not built like parts is left for the schema to refuse. */
function walked(all: readonly unknown[], holder: Holder): unknown {
  try {
    return heldBy(QuestionSchema, { all } as Question, holder);
  } catch (error) {
    if (error instanceof TypeError) return { all };
    throw error;
  }
}

/** How deep lists and objects lie within each other; stops where it is too deep. */
function nestedDeep(value: unknown): number {
  let layer: readonly unknown[] = [value];
  for (let depth = 0; depth <= 41; depth++) {
    layer = layer.flatMap((one) => (typeof one === 'object' && one !== null ? Object.values(one) : []));
    if (layer.length === 0) return depth;
  }
  return 41;
}

/** Records by the name that finds them. */
class Finder {
  private readonly byPath = new Map<TableType, Map<string, Id>>();

  constructor(private readonly state: Pick<StudyState, 'tables'>) {}

  find(of: TableType, path: unknown): Id | null {
    if (typeof path !== 'string') return null;
    let paths = this.byPath.get(of);
    if (!paths) {
      this.byPath.set(of, (paths = new Map()));
      for (const id of Object.keys(this.state.tables[of])) {
        const own = pathOf(this.state, of, id, undefined);
        if (!paths.has(own)) paths.set(own, id);
      }
    }
    return paths.get(path) ?? null;
  }
}
