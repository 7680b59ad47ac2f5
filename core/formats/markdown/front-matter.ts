import { parseDocument } from 'yaml';
import { tidyLine } from '../../text/normalise';
import type { Fact } from '../reading';

/** What stands at the head of a Markdown file, between lines of three hyphens. */
export interface FrontMatter {
  readonly facts: readonly Fact[];
  /** The text after it. */
  readonly rest: string;
  /** Whether fields are there that could not be read; they are part of the rest. */
  readonly broken: boolean;
}

/** Characters and fields that a head may have. */
const LONGEST = 50_000;
const MOST = 100;
/** Characters of a value. */
const VALUE = 2_000;

/**
 * Takes the fields at the head of a Markdown file (YAML between lines of three hyphens) off its text. Lists become words
 * with commas between, a field within a field has the names of both.
 * @param text with `\n` line ends
 */
export function frontMatter(text: string): FrontMatter {
  const none = { facts: [], rest: text, broken: false };
  if (!/^---[ \t]*\n/.test(text)) return none;
  const lines = text.slice(0, LONGEST).split('\n');
  const end = lines.findIndex((line, at) => at > 0 && /^(---|\.\.\.)[ \t]*$/.test(line));
  if (end < 0) return none;
  const head = lines.slice(1, end).join('\n');
  const rest = text.slice(lines.slice(0, end + 1).join('\n').length + 1);
  const fields = fieldsOf(head);
  if (fields) return { facts: factsOf(fields), rest, broken: false };
  // two lines of hyphens around words are a text of its own, and no head
  return /^[\p{L}\w -]+:/mu.test(head) ? { facts: [], rest: `${head.replace(/\n/g, '\n\n')}\n\n${rest}`, broken: true } : none;
}

/** The fields, or null where the words are none. */
function fieldsOf(head: string): Readonly<Record<string, unknown>> | null {
  try {
    const document = parseDocument(head, { logLevel: 'silent', uniqueKeys: false, merge: false });
    if (document.errors.length > 0) return null;
    // names that stand for others may blow a few lines up to millions
    const value: unknown = document.toJS({ maxAliasCount: 0 });
    return value !== null && typeof value === 'object' && !Array.isArray(value) ? (value as Record<string, unknown>) : null;
  } catch {
    return null;
  }
}

function factsOf(fields: Readonly<Record<string, unknown>>, before = ''): Fact[] {
  return Object.entries(fields)
    .flatMap(([key, value]): Fact[] => {
      const name = tidyLine(before + key);
      if (value !== null && typeof value === 'object' && !Array.isArray(value) && before.length < 200)
        return factsOf(value as Record<string, unknown>, `${name} `);
      const words = tidyLine(Array.isArray(value) ? value.map(wordOf).filter(Boolean).join(', ') : wordOf(value)).slice(0, VALUE);
      return name && words ? [{ name, value: words }] : [];
    })
    .slice(0, MOST);
}

const wordOf = (value: unknown): string =>
  value === null || value === undefined ? '' : typeof value === 'object' ? JSON.stringify(value) : String(value);
