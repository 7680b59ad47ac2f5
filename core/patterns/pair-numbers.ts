/**
 * Numbers for pairs of 32-bit integers, given in the order in which pairs are first met: an open hash table, since a map
 * of eight million pairs takes ten times as long.
 */
export class PairNumbers {
  private firsts = new Int32Array(1 << 16);
  private seconds = new Int32Array(1 << 16);
  /** The number of the pair in a place, and one more; 0 where there is none. */
  private numbers = new Int32Array(1 << 16);
  private count = 0;

  /** How many pairs have a number: each is smaller than this. */
  get size(): number {
    return this.count;
  }

  of(first: number, second: number): number {
    if (this.count * 2 > this.numbers.length) this.grow();
    const at = this.placeOf(first, second);
    if (this.numbers[at] === 0) {
      this.firsts[at] = first;
      this.seconds[at] = second;
      this.numbers[at] = ++this.count;
    }
    return this.numbers[at]! - 1;
  }

  private placeOf(first: number, second: number): number {
    const mask = this.numbers.length - 1;
    // multiplied by odd numbers with many bits, so that neighbours lie far apart
    let at = (Math.imul(first, 0x9e3779b1) ^ Math.imul(second, 0x85ebca6b)) >>> 0;
    at = (at ^ (at >>> 15)) & mask;
    while (this.numbers[at] !== 0 && (this.firsts[at] !== first || this.seconds[at] !== second)) at = (at + 1) & mask;
    return at;
  }

  private grow(): void {
    const { firsts, seconds, numbers } = this;
    const size = numbers.length * 2;
    this.firsts = new Int32Array(size);
    this.seconds = new Int32Array(size);
    this.numbers = new Int32Array(size);
    numbers.forEach((number, from) => {
      if (number === 0) return;
      const at = this.placeOf(firsts[from]!, seconds[from]!);
      this.firsts[at] = firsts[from]!;
      this.seconds[at] = seconds[from]!;
      this.numbers[at] = number;
    });
  }
}
