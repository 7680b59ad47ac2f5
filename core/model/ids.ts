import * as z from 'zod';

// the content policy of the pages forbids making code from text, which schemas otherwise try
z.config({ jitless: true });

/** Every record carries a random UUID in the lower-case text form of RFC 9562, always 36 characters. */
export const IdSchema = z.string().regex(/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/, 'is not an identifier (UUID)');
export type Id = z.infer<typeof IdSchema>;

/** Length of an id in characters; packed columns rely on it. */
export const ID_LENGTH = 36;

/** Makes ids. Commands receive one, so that tests can make them predictable. */
export type NewId = () => Id;

export const randomId: NewId = () => crypto.randomUUID();

/**
 * Ids that are the same in every run: for samples, benchmarks and tests.
 * @param seed keeps two sequences apart (0 to 0xffffffff).
 */
export function sequentialIds(seed = 0): NewId {
  let next = 0;
  const head = (seed >>> 0).toString(16).padStart(8, '0');
  return () => `${head}-0000-4000-8000-${(++next).toString(16).padStart(12, '0')}`;
}
