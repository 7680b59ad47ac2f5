/** What is typed while transcribing, and what it becomes. */
export interface ShortForm {
  /** Without blanks. */
  readonly short: string;
  readonly long: string;
}

/** Until a study has its own: signs for what is heard and is no word. */
export const FIRST_SHORT_FORMS: readonly ShortForm[] = [
  { short: ';p', long: '(pause)' },
  { short: ';l', long: '[laughs]' },
  { short: ';o', long: '[overlap]' },
  { short: ';b', long: '…' },
];

/** Signs after which what stands before them is complete. */
const ENDS = /[\s.,;:!?)\]…]/u;

/**
 * What a sign that is typed makes of the word in front of it: nothing, or the long form in the place of a short one.
 * @param before the line up to where it is typed
 * @returns how many characters of `before` are replaced, and by what
 */
export function expanded(
  before: string,
  typed: string,
  forms: readonly ShortForm[],
): { readonly take: number; readonly put: string } | null {
  if (!ENDS.test(typed)) return null;
  const word = /\S+$/.exec(before)?.[0] ?? '';
  const form = forms.find((one) => one.short === word);
  return form ? { take: word.length, put: form.long } : null;
}
