import { literally } from '../text/find-replace';
import type { Code } from '../model/code';
import type { Id } from '../model/ids';

/** How names are to be changed. */
export type Renaming =
  | { readonly how: 'replace'; readonly find: string; readonly instead: string; readonly matchCase: boolean }
  | { readonly how: 'prefix'; readonly add: string }
  | { readonly how: 'strip'; readonly strip: string };

/** Names as a renaming would make them: only codes whose name changes, and not to nothing. */
export function renamed(codes: readonly Code[], renaming: Renaming): Map<Id, string> {
  const names = new Map<Id, string>();
  for (const code of codes) {
    const name = nameAfter(code.name, renaming).replace(/\s+/g, ' ').trim();
    if (name !== '' && name !== code.name) names.set(code.id, name);
  }
  return names;
}

function nameAfter(name: string, renaming: Renaming): string {
  switch (renaming.how) {
    case 'replace':
      return renaming.find === ''
        ? name
        : name.replace(new RegExp(literally(renaming.find), renaming.matchCase ? 'gu' : 'giu'), () => renaming.instead);
    case 'prefix':
      return renaming.add === '' || name.startsWith(renaming.add) ? name : renaming.add + name;
    case 'strip':
      return renaming.strip !== '' && name.startsWith(renaming.strip) ? name.slice(renaming.strip.length) : name;
  }
}
