import { parseValue } from '@core/attributes/values';
import type { Attribute } from '@core/model/case';

/** Bands from where they begin, "20, 40": under 20, 20 to under 40, from 40. Null where that cannot be read. */
export function readBands(raw: string, type: Attribute['type']): { bounds: (number | string)[]; names: string[] } | null {
  const bounds = raw
    .split(/[,;]\s*/)
    .filter((part) => part.trim())
    .map((part) => parseValue(part, type === 'date' ? 'date' : 'number'));
  if (bounds.length === 0 || bounds.some((bound) => typeof bound !== 'number' && typeof bound !== 'string')) return null;
  const known = bounds as (number | string)[];
  if (known.some((bound, at) => at > 0 && bound <= known[at - 1]!)) return null;
  const [before, from] = type === 'date' ? ['before', 'from'] : ['under', 'from'];
  const names = [
    `${before} ${known[0]}`,
    ...known.map((bound, at) => (at + 1 < known.length ? `${bound} to ${before} ${known[at + 1]}` : `${from} ${bound}`)),
  ];
  return { bounds: known, names };
}
