/** A sum over the characters of a text (FNV-1a, 32 bits; Fowler, Noll, Vo 1991): texts with other sums differ. */
export function fingerprint(text: string): number {
  let sum = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) sum = Math.imul(sum ^ text.charCodeAt(at), 0x01000193);
  return sum >>> 0;
}
