import type * as z from 'zod';

/**
 * Whether what is wrong with a record is only the size or the meaning of a value, so that the study that holds it can
 * be opened and the value mended. Wrong shapes (missing fields, other types, broken ids) are not.
 */
export function isMendable(issue: z.core.$ZodIssue): boolean {
  switch (issue.code) {
    case 'too_big':
    case 'too_small':
      return issue.origin === 'string' || issue.origin === 'array';
    case 'invalid_format':
      return issue.format === 'date' || (issue.format === 'regex' && LINES.has(String(issue.path.at(-1))));
    case 'invalid_union':
      return issue.errors.some((branch) => branch.length > 0 && branch.every(isMendable));
    default:
      return false;
  }
}

/** Fields that hold a line of the researcher's own words; other patterns are those of ids and check sums. */
const LINES = new Set(['title', 'name', 'term', 'kind', 'caseWord', 'sentence']);
