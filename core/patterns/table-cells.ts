/** Adds a table that lies by columns to one that lies by rows, a block after the other so that both stay at hand. */
export function addTurned(counts: Float64Array, byColumn: Float64Array, height: number, width: number): void {
  const block = 32;
  for (let top = 0; top < height; top += block)
    for (let left = 0; left < width; left += block)
      for (let row = top; row < Math.min(height, top + block); row++)
        for (let column = left; column < Math.min(width, left + block); column++)
          counts[row * width + column]! += byColumn[column * height + row]!;
}

/** Some columns of a table. */
export function narrowed(counts: Float64Array, height: number, width: number, kept: readonly number[]): Float64Array {
  const narrow = new Float64Array(height * kept.length);
  for (let row = 0; row < height; row++)
    for (const [at, column] of kept.entries()) narrow[row * kept.length + at] = counts[row * width + column]!;
  return narrow;
}
