import { FAMILY_SIZE, PALETTE_SIZE } from './code';

/** A colour in OKLCH (Ottosson 2020; CSS Color 4): lightness 0–1, chroma, hue in degrees. */
export interface Oklch {
  readonly lightness: number;
  readonly chroma: number;
  readonly hue: number;
}

/** A family of related hues. Codes under one category take theirs from one family. */
interface Family {
  readonly name: string;
  readonly hue: number;
  readonly chroma: number;
}

/** About 45° apart; the last is nearly grey, for what says how something is said rather than what. */
const FAMILIES: readonly Family[] = [
  { name: 'blue', hue: 254, chroma: 0.13 },
  { name: 'red', hue: 20, chroma: 0.13 },
  { name: 'ochre', hue: 82, chroma: 0.12 },
  { name: 'green', hue: 152, chroma: 0.12 },
  { name: 'violet', hue: 306, chroma: 0.13 },
  { name: 'teal', hue: 200, chroma: 0.11 },
  { name: 'orange', hue: 50, chroma: 0.13 },
  { name: 'grey', hue: 250, chroma: 0.025 },
];

/** Where a family's members lie: hue around the family's, and lightness on the light theme. */
const MEMBERS: readonly { readonly turn: number; readonly lightness: number }[] = [
  { turn: 0, lightness: 0.54 },
  { turn: -16, lightness: 0.61 },
  { turn: 14, lightness: 0.48 },
  { turn: -8, lightness: 0.5 },
  { turn: 8, lightness: 0.64 },
];

/** The dark theme's lines are lighter by this much. */
const DARK_LIFT = 0.18;

/** Names of the colour families, in the order of the palette. */
export const FAMILY_NAMES: readonly string[] = FAMILIES.map((family) => family.name);

/** The colour of a palette entry on a theme. @param entry 0 to PALETTE_SIZE − 1 */
export function codeColour(entry: number, theme: 'light' | 'dark'): Oklch {
  const at = ((entry % PALETTE_SIZE) + PALETTE_SIZE) % PALETTE_SIZE;
  const family = FAMILIES[Math.floor(at / FAMILY_SIZE)]!;
  const member = MEMBERS[at % FAMILY_SIZE]!;
  return {
    lightness: member.lightness + (theme === 'dark' ? DARK_LIFT : 0),
    chroma: family.chroma,
    hue: (family.hue + member.turn + 360) % 360,
  };
}

/** The colour in CSS. */
export const cssColour = ({ lightness, chroma, hue }: Oklch): string =>
  `oklch(${lightness.toFixed(3)} ${chroma.toFixed(3)} ${hue.toFixed(1)})`;
