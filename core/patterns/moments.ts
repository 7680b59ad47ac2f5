import type { Stretch } from '../model/stretch';

/** A passage with whose it is. */
export interface Said extends Stretch {
  readonly row: number;
  /** Groups it belongs to. */
  readonly groups: readonly number[];
}

/** One time that a theme is spoken of: who begins, and who goes on. */
export interface Moment {
  readonly first: Said;
  /** For each other group, the first passage in which it speaks of it too. */
  readonly takers: readonly { readonly said: Said; readonly group: number }[];
}

/**
 * Divides the passages of a theme into moments: whoever speaks first in one brings the theme up, every other group that
 * speaks of it in the same moment takes it on, once.
 * @param passages ascending by start
 * @param turnAt number of the turn that holds a position; null where a moment lasts as long as the document
 * @param apart turns without the theme after which the next passage begins a new moment
 */
export function momentsOf(passages: readonly Said[], turnAt: ((position: number) => number) | null, apart: number): Moment[] {
  const moments: { first: Said; takers: { said: Said; group: number }[] }[] = [];
  let heard = new Set<number>();
  let end = 0;
  for (const said of passages) {
    const now = moments.at(-1);
    if (!now || (turnAt && turnAt(said.start) - turnAt(end - 1) > apart)) {
      moments.push({ first: said, takers: [] });
      heard = new Set(said.groups);
      end = said.end;
      continue;
    }
    for (const group of said.groups)
      if (!heard.has(group)) {
        heard.add(group);
        now.takers.push({ said, group });
      }
    end = Math.max(end, said.end);
  }
  return moments;
}
