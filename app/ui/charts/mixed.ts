/** A colour with so much of another. Both are written as `#rrggbb`. */
export function mixed(colour: string, other: string, share: number): string {
  const parts = (hex: string): number[] => [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16));
  const [one, two] = [parts(colour), parts(other)];
  const part = (from: number, to: number): string =>
    Math.round(from + (to - from) * share)
      .toString(16)
      .padStart(2, '0');
  return `#${one.map((from, at) => part(from, two[at]!)).join('')}`;
}
