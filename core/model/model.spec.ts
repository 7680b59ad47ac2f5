import { codeColour, type Oklch } from './palette';
import { PALETTE_SIZE } from './code';
import { randomId, sequentialIds, IdSchema } from './ids';
import { migrateRecord, NewerVersionError } from './schema-version';
import { PassageSchema } from './passage';
import { LineSchema } from './fields';

/** OKLCH to linear sRGB (Ottosson 2020), clipped to what a screen shows. */
function toLinear({ lightness: L, chroma, hue }: Oklch): [number, number, number] {
  const a = chroma * Math.cos((hue * Math.PI) / 180);
  const b = chroma * Math.sin((hue * Math.PI) / 180);
  const l = (L + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (L - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (L - 0.0894841775 * a - 1.291485548 * b) ** 3;
  const clip = (x: number) => Math.min(1, Math.max(0, x));
  return [
    clip(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
    clip(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
    clip(-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s),
  ];
}

const luminance = ([r, g, b]: readonly number[]) => 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
const contrast = (a: number, b: number) => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
const ofHex = (hex: string) =>
  [1, 3, 5].map((at) => ((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4))(parseInt(hex.slice(at, at + 2), 16) / 255));

/** How linear colours look with a full colour-vision deficiency (Machado, Oliveira & Fernandes 2009, severity 1). */
const DEFICIENCIES: Readonly<Record<string, readonly (readonly number[])[]>> = {
  protanopia: [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  deuteranopia: [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  tritanopia: [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
};
const seenWith = (matrix: readonly (readonly number[])[], rgb: readonly number[]) =>
  matrix.map((row) =>
    Math.min(
      1,
      Math.max(
        0,
        row.reduce((sum, weight, at) => sum + weight * rgb[at]!, 0),
      ),
    ),
  );

/** Linear sRGB to OKLab, where distances are about how different colours look. */
function toOklab([r, g, b]: readonly number[]): [number, number, number] {
  const l = Math.cbrt(0.4122214708 * r! + 0.5363325363 * g! + 0.0514459929 * b!);
  const m = Math.cbrt(0.2119034982 * r! + 0.6806995451 * g! + 0.1073969566 * b!);
  const s = Math.cbrt(0.0883024619 * r! + 0.2817188376 * g! + 0.6299787005 * b!);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}
const distance = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((value, at) => value - b[at]!));

const THEMES = { light: '#ffffff', dark: '#141e21' } as const;
const entries = Array.from({ length: PALETTE_SIZE }, (_, entry) => entry);

describe('the code palette', () => {
  it('has at least 30 entries', () => expect(PALETTE_SIZE).toBeGreaterThanOrEqual(30));

  for (const theme of ['light', 'dark'] as const) {
    const colours = entries.map((entry) => toLinear(codeColour(entry, theme)));

    it(`reaches 3:1 as a line on the ${theme} surface, every entry`, () => {
      const surface = luminance(ofHex(THEMES[theme]));
      colours.forEach((colour, entry) =>
        expect(contrast(luminance(colour), surface))
          .withContext(`entry ${entry}`)
          .toBeGreaterThanOrEqual(3),
      );
    });

    it(`is told apart entry by entry on ${theme}`, () => {
      const seen = colours.map(toOklab);
      for (const a of entries)
        for (const b of entries.slice(0, a)) expect(distance(seen[a]!, seen[b]!)).withContext(`${a} and ${b}`).toBeGreaterThan(0.02);
    });

    for (const [name, matrix] of Object.entries(DEFICIENCIES)) {
      it(`keeps at least 30 entries apart with ${name} on ${theme}`, () => {
        const seen = colours.map((colour) => toOklab(seenWith(matrix, colour)));
        const apart: number[] = [];
        for (const entry of entries) if (apart.every((other) => distance(seen[entry]!, seen[other]!) > 0.012)) apart.push(entry);
        expect(apart.length).toBeGreaterThanOrEqual(30);
      });
    }
  }

  it('keeps lightness within one band, lifted on dark', () => {
    for (const entry of entries) {
      const { lightness } = codeColour(entry, 'light');
      expect(lightness).toBeGreaterThanOrEqual(0.48);
      expect(lightness).toBeLessThanOrEqual(0.66);
      expect(codeColour(entry, 'dark').lightness).toBeCloseTo(lightness + 0.18, 6);
    }
  });
});

describe('ids', () => {
  it('are lower-case UUIDs, the sequential ones too', () => {
    const next = sequentialIds(3);
    for (const id of [randomId(), next(), next()]) expect(IdSchema.safeParse(id).success).withContext(id).toBeTrue();
    expect(next()).not.toBe(sequentialIds(4)());
    expect(IdSchema.safeParse('ABC').success).toBeFalse();
  });
});

describe('fields', () => {
  it('take one line of anything but control characters as a name', () => {
    expect(LineSchema.safeParse('<b>“ferry”</b> ⛴').success).toBeTrue();
    for (const bad of ['', 'a\nb', 'x'.repeat(501)]) expect(LineSchema.safeParse(bad).success).toBeFalse();
  });

  it('take no passage that is empty or runs backwards', () => {
    const id = randomId();
    const passage = { id, documentId: id, start: 5, end: 5, comment: '', coderId: id, createdAt: 0, codings: [] };
    expect(PassageSchema.safeParse(passage).success).toBeFalse();
    expect(PassageSchema.safeParse({ ...passage, end: 6 }).success).toBeTrue();
    expect(PassageSchema.safeParse({ ...passage, end: 6, more: 1 }).success).toBeFalse();
  });
});

describe('migrations', () => {
  const records = {
    memo: { migrations: { 1: (one: object) => ({ ...one, two: 1 }), 2: (one: object) => ({ ...one, three: 2 }) } },
    code: {},
  };

  it('go step by step to the current version, by type', () => {
    expect(migrateRecord('memo', { one: 0 }, 1, records, 3)).toEqual({ one: 0, two: 1, three: 2 });
    expect(migrateRecord('memo', { one: 0 }, 2, records, 3)).toEqual({ one: 0, three: 2 });
    expect(migrateRecord('code', { one: 0 }, 1, records, 3)).toEqual({ one: 0 });
    expect(migrateRecord('constructor', { one: 0 }, 1, records, 3)).toEqual({ one: 0 });
  });

  it('refuse a newer version and one that never was', () => {
    expect(() => migrateRecord('memo', {}, 4, records, 3)).toThrowError(NewerVersionError, /newer version/);
    expect(() => migrateRecord('memo', {}, 0, records, 3)).toThrowError(RangeError);
  });
});
