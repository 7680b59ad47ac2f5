/** Steps of shading that tables have. */
const STEPS = 8;

/** The shade of a number, by the square root of its share of the largest: 0 to 7; null for what is not shaded. */
export function shadeOf(value: number | null, largest: number): number | null {
  if (value === null || value === 0 || largest <= 0) return null;
  return Math.min(STEPS - 1, Math.floor(Math.sqrt(Math.abs(value) / largest) * STEPS));
}
