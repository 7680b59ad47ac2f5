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

/** A code's description as one text, for formats that have room for one only: the definition, then the rest by label. */
export function oneDescription(code: Described): string {
  return DESCRIPTION_LABELS.flatMap(([key, label]) => {
    const text = code[key]?.trim();
    return text ? [key === 'definition' ? text : `${label}: ${text}`] : [];
  }).join('\n\n');
}

/** Takes a text written by {@link oneDescription} apart again. What has no label is the definition. */
export function partsOfDescription(text: string): Required<Described> {
  const parts = { definition: '', useWhen: '', doNotUseWhen: '', example: '', notes: '' };
  let now: keyof typeof parts = 'definition';
  for (const block of text.replace(/\r\n?/g, '\n').split(/\n{2,}/)) {
    const label = DESCRIPTION_LABELS.find(([key, name]) => key !== 'definition' && block.startsWith(`${name}: `));
    if (label) now = label[0];
    const words = label ? block.slice(label[1].length + 2) : block;
    parts[now] = parts[now] ? `${parts[now]}\n\n${words}` : words;
  }
  for (const key of Object.keys(parts) as (keyof typeof parts)[]) parts[key] = parts[key].trim();
  return parts;
}
