/** How far beyond what is in sight is drawn, on either side; px. */
export interface Ahead {
  readonly before: number;
  readonly after: number;
}

/** Steps of a scroll that what is drawn ahead lasts for. */
const STEPS = 5;

/**
 * How far ahead to draw after a step of a scroll. The browser moves what is drawn by itself and shows it at once; the page
 * comes to draw what follows some steps later, and until then nothing stands there. So more is drawn where one scrolls
 * to, the more the faster, and stays as much while one scrolls on: what went with a slower step would come with the next.
 * It grows with each step by no more than that step, since a step that draws much comes late itself; after a jump, of
 * which nobody knows where it leads, it is the least.
 * @param moved px of the step; below 0 towards the beginning
 * @param limits px that are drawn at least on either side, and at most
 */
export function aheadAfter(last: Ahead, moved: number, limits: { readonly least: number; readonly most: number }): Ahead {
  if (moved === 0) return last;
  const { least, most } = limits;
  const step = Math.abs(moved);
  if (step > most) return { before: least, after: least };
  const grown = (now: number): number => Math.max(now, Math.min(most, least + STEPS * step, now + step));
  return moved > 0 ? { before: least, after: grown(last.after) } : { before: grown(last.before), after: least };
}
