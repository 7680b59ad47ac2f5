/**
 * A short mark for a code, so that it can be told without colour: the initials of its first two words,
 * else its first two letters, else later letters, whichever no other code has yet. Works on graphemes,
 * so that marks of any script stay whole.
 * @param taken marks of the other codes
 */
export function markFor(name: string, taken: ReadonlySet<string>): string {
  const words = name.match(/[\p{L}\p{N}][\p{L}\p{M}\p{N}]*/gu) ?? [];
  const letters = words.map((word) => Array.from(new Intl.Segmenter().segment(word), (part) => part.segment));
  const [first = [], second = []] = letters;
  const head = (first[0] ?? '?').toUpperCase();
  const followers = [...first.slice(1), ...second, ...letters.slice(2).flat()].map((letter) => letter.toLowerCase());
  const candidates = [
    head + (followers[0] ?? ''),
    ...(second[0] ? [head + second[0].toLowerCase()] : []),
    ...followers.map((letter) => head + letter),
  ];
  const free = candidates.find((mark) => !taken.has(mark));
  if (free) return free;
  for (let number = 2; number < 100; number++) if (!taken.has(head + number)) return head + number;
  // with many codes two signs are not enough
  const signs = [...'abcdefghijklmnopqrstuvwxyz0123456789'];
  for (const one of signs) for (const two of signs) if (!taken.has(head + one + two)) return head + one + two;
  return head;
}
