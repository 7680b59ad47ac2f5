import type { Attribute, AttributeValue } from '../model/case';
import { foldSpace } from '../text/normalise';

/** Months by their first three letters, in the languages whose dates are written with names here. */
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/**
 * Reads what somebody wrote as a value of a type.
 * Numbers may have thousands separators and either decimal sign; dates are `2025-01-22`, `22.1.2025`,
 * `22/1/2025` (the day first, unless that cannot be) or `22 January 2025`; yes and no also as true, false, y, n, 1, 0, x.
 * @returns the value; undefined where the cell is empty; null where it does not fit the type
 */
export function parseValue(raw: string, type: Attribute['type']): AttributeValue | undefined | null {
  const text = foldSpace(raw);
  if (!text) return undefined;
  switch (type) {
    case 'text':
      return text.slice(0, 10_000);
    case 'choice':
      return text.length <= 500 ? text : null;
    case 'number':
      return parseNumber(text);
    case 'date':
      return parseDay(text);
    case 'yes/no':
      if (/^(yes|y|true|1|x|✓|ja|oui|si|sí)$/i.test(text)) return true;
      return /^(no|n|false|0|nein|non)$/i.test(text) ? false : null;
  }
}

function parseNumber(text: string): number | null {
  const plain = text.replace(/[\s'’](?=\d{3}(\D|$))/g, '');
  const grouped = /^[-+−]?\d{1,3}(,\d{3})+(\.\d+)?$/.test(plain)
    ? plain.replace(/,/g, '')
    : /^[-+−]?\d{1,3}(\.\d{3}){2,}(,\d+)?$|^[-+−]?\d{1,3}(\.\d{3})+,\d+$/.test(plain)
      ? plain.replace(/\./g, '').replace(',', '.')
      : plain.replace(',', '.');
  return /^[-+−]?(\d+\.?\d*|\.\d+)$/.test(grouped) ? Number(grouped.replace('−', '-')) : null;
}

function parseDay(text: string): string | null {
  let match = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ]\d{1,2}:\d{2}.*)?$/.exec(text);
  if (match) return day(match[1]!, match[2]!, match[3]!);
  match = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})(?: \d{1,2}:\d{2}.*)?$/.exec(text);
  if (match) return day(match[3]!, match[2]!, match[1]!) ?? day(match[3]!, match[1]!, match[2]!);
  match = /^(\d{1,2})\.? (\p{L}{3})\p{L}*\.? (\d{4})$/u.exec(text) ?? /^(\p{L}{3})\p{L}*\.? (\d{1,2}),? (\d{4})$/u.exec(text);
  if (!match) return null;
  const [named, number] = /\d/.test(match[1]!) ? [match[2]!, match[1]!] : [match[1]!, match[2]!];
  const month = MONTHS.indexOf(named.toLowerCase());
  return month < 0 ? null : day(match[3]!, String(month + 1), number);
}

/** `YYYY-MM-DD` if there is such a day. */
function day(year: string, month: string, date: string): string | null {
  const text = `${year}-${month.padStart(2, '0')}-${date.padStart(2, '0')}`;
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text) ? text : null;
}

/** A value as it is written in a cell; empty for one that is not known. */
export function showValue(value: AttributeValue | undefined): string {
  if (value === undefined) return '';
  return typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value);
}

/** Whether a stored value fits a type. */
export function fits(value: AttributeValue, type: Attribute['type']): boolean {
  if (type === 'number') return typeof value === 'number' && Number.isFinite(value);
  if (type === 'yes/no') return typeof value === 'boolean';
  return typeof value === 'string' && (type !== 'date' || parseDay(value) === value);
}

/** Orders values of one attribute: numbers by size, dates by time, choices as the attribute lists them, the unknown last. */
export function compareValues(attribute: Attribute, a: AttributeValue | undefined, b: AttributeValue | undefined): number {
  if (a === undefined || b === undefined) return a === b ? 0 : a === undefined ? 1 : -1;
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  if (typeof a === 'boolean' && typeof b === 'boolean') return Number(b) - Number(a);
  if (attribute.type === 'choice') {
    const [x, y] = [attribute.choices.indexOf(String(a)), attribute.choices.indexOf(String(b))];
    if (x >= 0 && y >= 0) return x - y;
  }
  return COLLATOR.compare(String(a), String(b));
}
const COLLATOR = new Intl.Collator(undefined, { numeric: true });
