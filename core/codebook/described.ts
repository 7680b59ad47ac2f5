import type { Code } from '../model/code';

/** Labels of what a code says of itself, in the order it is written. */
export const DESCRIPTION_LABELS = [
  ['definition', 'Definition'],
  ['useWhen', 'Use when'],
  ['doNotUseWhen', 'Do not use when'],
  ['example', 'Example'],
  ['notes', 'Notes'],
] as const;

type Described = Pick<Code, 'definition' | 'useWhen' | 'doNotUseWhen' | 'example' | 'notes'>;

const NAMES = DESCRIPTION_LABELS.slice(1)
  .map(([, label]) => label)
  .join('|');
/** Where a part begins: a label at the very start or behind a blank line. */
const BEGINNING = new RegExp(`(?:^|\\n\\n)(?=(?:${NAMES}): )`, 'g');
/** Words of a part that would be taken for a label, perhaps behind backslashes already. */
const LABEL_LIKE = new RegExp(String.raw`(^|\n\n)(\\*)(?=(?:${NAMES}): )`, 'g');
const ESCAPED = new RegExp(String.raw`(^|\n\n)\\(\\*)(?=(?:${NAMES}): )`, 'g');

/**
 * A code's description as one text, for formats that have room for one only: the definition, then the rest by label.
 * Words that look like a label get a backslash in front.
 */
export function oneDescription(code: Described): string {
  return DESCRIPTION_LABELS.flatMap(([key, label]) => {
    const text = code[key]?.trim().replace(LABEL_LIKE, '$1\\$2');
    return text ? [key === 'definition' ? text : `${label}: ${text}`] : [];
  }).join('\n\n');
}

/** Takes a text written by {@link oneDescription} apart again. What has no label is the definition. */
export function partsOfDescription(text: string): Required<Described> {
  const parts = { definition: '', useWhen: '', doNotUseWhen: '', example: '', notes: '' };
  for (const block of text.replace(/\r\n?/g, '\n').split(BEGINNING)) {
    const label = DESCRIPTION_LABELS.find(([key, name]) => key !== 'definition' && block.startsWith(`${name}: `));
    const [key, words] = label ? [label[0], block.slice(label[1].length + 2)] : ['definition' as const, block];
    parts[key] = [parts[key], words.replace(ESCAPED, '$1$2').trim()].filter(Boolean).join('\n\n');
  }
  return parts;
}
