import { PALETTE_SIZE } from './code';
import { codeColour, type Oklch } from './palette';

/** Linear light from OKLab and back, by the matrices of Ottosson, "A perceptual color space for image processing" (2020). */
function toLinear({ lightness, chroma, hue }: Oklch): [number, number, number] {
  const a = chroma * Math.cos((hue * Math.PI) / 180);
  const b = chroma * Math.sin((hue * Math.PI) / 180);
  const l = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (lightness - 0.0894841775 * a - 1.291485548 * b) ** 3;
  return [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ];
}

/** A colour as `#RRGGBB` in sRGB; what lies outside of sRGB is cut to it. */
export function hexOf(colour: Oklch): string {
  const bytes = toLinear(colour).map((light) => {
    const within = Math.min(1, Math.max(0, light));
    const encoded = within <= 0.0031308 ? 12.92 * within : 1.055 * within ** (1 / 2.4) - 0.055;
    return Math.round(encoded * 255)
      .toString(16)
      .padStart(2, '0');
  });
  return `#${bytes.join('')}`.toUpperCase();
}

/** OKLab coordinates of a `#RRGGBB` colour. */
function labOf(hex: string): [number, number, number] {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const value = parseInt(hex.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

/** The palette entry nearest to a colour, by hue and chroma first: lightness is the palette's own. @param hex `#RRGGBB` */
export function nearestColour(hex: string): number {
  const [lightness, a, b] = labOf(hex);
  let best = 0;
  let least = Infinity;
  for (let entry = 0; entry < PALETTE_SIZE; entry++) {
    const one = labOf(hexOf(codeColour(entry, 'light')));
    const distance = (one[1] - a) ** 2 + (one[2] - b) ** 2 + 0.25 * (one[0] - lightness) ** 2;
    if (distance < least) [best, least] = [entry, distance];
  }
  return best;
}
