import { codeColour } from '@core/model/palette';
import { hexOf } from '@core/model/colour-hex';
import { tokensOf, type Token } from '../../../ui/charts/chart-look';

type Attributes = Readonly<Record<string, string | number>>;

/** A picture that is made to be taken out: what it shows on the screen is no drawing of its own. */
export class Drawing {
  readonly token: Token;
  private readonly dark: boolean;
  private readonly svg = made('svg', {});

  constructor(readonly width: number) {
    const root = document.documentElement;
    this.token = tokensOf(getComputedStyle(root));
    this.dark = getComputedStyle(root).colorScheme === 'dark';
  }

  line(x1: number, y1: number, x2: number, y2: number, stroke: string, thick = 1): void {
    this.put('line', { x1, y1, x2, y2, stroke, 'stroke-width': thick });
  }

  rect(x: number, y: number, width: number, height: number, fill: string, more: Attributes = {}): void {
    this.put('rect', { x, y, width, height, fill, ...more });
  }

  path(d: string, stroke: string, thick: number): void {
    this.put('path', { d, stroke, 'stroke-width': thick, fill: 'none' });
  }

  text(words: string, x: number, y: number, more: Attributes = {}): void {
    this.put('text', { x, y, fill: this.token('--ink'), 'font-family': UI_FACE, 'font-size': 12, ...more }).textContent = words;
  }

  /** The thread of a code with its mark, as everywhere. */
  swatch(mark: string, colour: number, x: number, y: number): void {
    this.text(mark, x + 10, y - 2, { 'text-anchor': 'middle', 'font-weight': 700, 'font-size': 11, fill: this.ofCode(colour) });
    this.line(x, y + 3, x + 20, y + 3, this.ofCode(colour), 2);
  }

  ofCode(colour: number | undefined): string {
    return colour === undefined ? this.token('--accent') : hexOf(codeColour(colour, this.dark ? 'dark' : 'light'));
  }

  /** The picture, so high. */
  ended(height: number): SVGSVGElement {
    this.svg.setAttribute('viewBox', `0 0 ${this.width} ${Math.ceil(height)}`);
    return this.svg;
  }

  private put(name: string, attributes: Attributes): SVGElement {
    const element = made(name as 'rect', attributes);
    this.svg.append(element);
    return element;
  }
}

const UI_FACE = 'Hanken Grotesk Variable, sans-serif';

function made<K extends keyof SVGElementTagNameMap>(name: K, attributes: Attributes): SVGElementTagNameMap[K] {
  const element = document.createElementNS('http://www.w3.org/2000/svg', name);
  for (const [key, value] of Object.entries(attributes))
    element.setAttribute(key, typeof value === 'number' ? String(Math.round(value * 100) / 100) : value);
  return element;
}
