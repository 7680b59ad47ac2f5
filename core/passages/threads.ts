import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';

/** One code on one passage, drawn as one line under its words. */
export interface Thread {
  readonly passageId: Id;
  readonly codeId: Id;
  readonly start: number;
  readonly end: number;
  /** 0 is the lane next to the words. */
  readonly lane: number;
}

/**
 * Lays codings into lanes, so that no two threads lie on each other: each takes the lowest lane that is
 * free where it starts. With passages in reading order this needs as many lanes as threads
 * overlap at the busiest position, and no more (interval partitioning).
 * A code that several coders gave the same passage is one thread.
 * @param passages in reading order
 * @param shown leaves out the codes for which it says no
 */
export function layThreads(passages: readonly Passage[], shown: (codeId: Id) => boolean = () => true): Thread[] {
  const threads: Thread[] = [];
  const busyUntil: number[] = [];
  for (const passage of passages) {
    const codeIds = new Set(passage.codings.map((coding) => coding.codeId).filter(shown));
    for (const codeId of codeIds) {
      let lane = busyUntil.findIndex((end) => end <= passage.start);
      if (lane < 0) lane = busyUntil.length;
      busyUntil[lane] = passage.end;
      threads.push({ passageId: passage.id, codeId, start: passage.start, end: passage.end, lane });
    }
  }
  return threads;
}

/** A stretch of text under which the same threads run from its start to its end. */
export interface Segment {
  readonly start: number;
  readonly end: number;
  readonly threads: readonly Thread[];
}

/**
 * Cuts the threads at every start and end, giving stretches that do not overlap, ascending.
 * @param threads by start, as {@link layThreads} gives them
 */
export function cutSegments(threads: readonly Thread[]): Segment[] {
  const bounds = new Float64Array(threads.length * 2);
  threads.forEach((thread, at) => {
    bounds[2 * at] = thread.start;
    bounds[2 * at + 1] = thread.end;
  });
  bounds.sort();
  const segments: Segment[] = [];
  let running: Thread[] = [];
  let next = 0;
  for (let at = 0; at + 1 < bounds.length; at++) {
    const start = bounds[at]!;
    const end = bounds[at + 1]!;
    if (start === end) continue;
    if (running.some((thread) => thread.end <= start)) running = running.filter((thread) => thread.end > start);
    if (next < threads.length && threads[next]!.start <= start) {
      running = [...running];
      while (next < threads.length && threads[next]!.start <= start) running.push(threads[next++]!);
      running.sort((a, b) => a.lane - b.lane);
    }
    if (running.length > 0) segments.push({ start, end, threads: running });
  }
  return segments;
}
