/** One measured figure beside what it is compared with, in the same run. */
export interface Figure {
  readonly what: string;
  readonly value: number;
  readonly unit: string;
  /** What it is held against, with its own figure. */
  readonly beside?: { readonly what: string; readonly value: number };
  /** What was promised, in words, and whether it is kept. */
  readonly promise?: { readonly words: string; readonly kept: boolean };
}

const number = (value: number): string => (value >= 100 ? Math.round(value).toLocaleString('en') : value.toPrecision(3));

/** Prints a figure as one line. */
export function report(figure: Figure): void {
  const ratio = figure.beside?.value ? ` (${(figure.value / figure.beside.value).toFixed(2)} ×)` : '';
  const beside = figure.beside ? `; ${figure.beside.what}: ${number(figure.beside.value)} ${figure.unit}${ratio}` : '';
  const promise = figure.promise ? ` — ${figure.promise.kept ? 'kept' : 'NOT KEPT'}: ${figure.promise.words}` : '';
  console.log(`${figure.what}: ${number(figure.value)} ${figure.unit}${beside}${promise}`);
}

/** The value below which a share of the values lie (nearest rank). */
export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.max(0, Math.ceil(share * sorted.length) - 1)] ?? NaN;
}

export const median = (values: readonly number[]): number => percentile(values, 0.5);

/** Prints the median and the 95th percentile of some times in ms, each beside the same of a comparison. @param under what is promised of the 95th percentile */
export function reportSpread(
  what: string,
  times: readonly number[],
  comparison: { readonly what: string; readonly times: readonly number[] },
  under: number,
): void {
  const p95 = percentile(times, 0.95);
  report({
    what: `${what}, median`,
    value: median(times),
    unit: 'ms',
    beside: { what: comparison.what, value: median(comparison.times) },
  });
  report({
    what: `${what}, 95th percentile`,
    value: p95,
    unit: 'ms',
    beside: { what: comparison.what, value: percentile(comparison.times, 0.95) },
    promise: { words: `under ${under} ms`, kept: p95 < under },
  });
}
