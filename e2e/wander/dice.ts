/** Chance by seed: the same seed throws the same numbers (mulberry32, by T. Ettinger, public domain). */
export class Dice {
  constructor(private state: number) {}

  /** 0 to below 1. */
  throw(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  }

  /** A whole number from 0 to below `many`. */
  below(many: number): number {
    return Math.floor(this.throw() * many);
  }

  one<T>(things: readonly T[]): T {
    if (things.length === 0) throw new RangeError('There is nothing to choose from.');
    return things[this.below(things.length)]!;
  }

  /** Whether something happens that happens once in so many times. */
  onceIn(times: number): boolean {
    return this.below(times) === 0;
  }

  /** One of several by their weights. */
  weighted<T extends { readonly weight: number }>(things: readonly T[]): T {
    let left = this.throw() * things.reduce((sum, one) => sum + one.weight, 0);
    return things.find((one) => (left -= one.weight) < 0) ?? things.at(-1)!;
  }

  /** Words with every sign that something uses for itself. */
  words(most = 4): string {
    const count = 1 + this.below(most);
    return Array.from({ length: count }, () => this.one(WORDS)).join(' ');
  }
}

const WORDS = [
  'ferry',
  'Pier',
  'm',
  '?',
  'x-ray',
  "Mairi's",
  'a/b',
  '=1+1',
  '“so”',
  'Zeit',
  'überall',
  '(sic)',
  'C++',
  'fog;',
  '2 * 3',
  'a_b',
  '渡し',
  '12',
  '#',
  '<b>',
];
