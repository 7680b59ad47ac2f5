import { normaliseText, tidyLine } from '../../text/normalise';
import { faultsOf, UNDESCRIBED, type ListedCode, type ListedCodebook } from './listed-code';

/**
 * Reads codes from a list as one types or pastes it: a line a code. What lies under another is indented (by tabs or
 * spaces), or names its path (`Feelings / Worry`). After a tab, or a dash between blanks, stands the definition. Bullets and
 * numbers in front are passed over.
 */
export function readCodeList(raw: string): ListedCodebook {
  const lines = normaliseText(raw).split('\n');
  const open: { indent: number; path: readonly string[] }[] = [];
  const codes: ListedCode[] = [];
  const named = new Set<string>();
  lines.forEach((line, at) => {
    if (!line.trim()) return;
    const lead = /^[\t ]*/.exec(line)![0];
    const indent = [...lead].reduce((sum, sign) => sum + (sign === '\t' ? 4 : 1), 0);
    const bare = line.slice(lead.length).replace(/^([-*•–]|\d+([.)]\d*)*[.)])\s+/u, '');
    const [head = '', ...definition] = bare.split(/\t+|\s(?:[—–]|--?)\s/u);
    while (open.length > 0 && open.at(-1)!.indent >= indent) open.pop();
    const above = open.at(-1)?.path ?? [];
    const names = head
      .split(/\s+\/\s+/u)
      .map(tidyLine)
      .filter(Boolean);
    if (names.length === 0) return;
    // categories that only a path names
    names.forEach((_, depth) => {
      const path = [...above, ...names.slice(0, depth + 1)];
      const last = depth === names.length - 1;
      const key = path.join('\u0000').toLowerCase();
      if (!last && named.has(key)) return;
      named.add(key);
      codes.push({ ...UNDESCRIBED, path, row: at + 1, ...(last && { definition: definition.join(' – ').trim() }) });
    });
    open.push({ indent, path: [...above, ...names] });
  });
  return { codes, sets: [], faults: codes.length === 0 ? ['There are no codes in the list.'] : faultsOf(codes, 'line'), notes: [] };
}
