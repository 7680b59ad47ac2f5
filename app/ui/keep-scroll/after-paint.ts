/**
 * Does something in a task of its own once the next frame is painted. A timer alone may come before the frame where the
 * machine is busy, and its work would then be part of what the reader waits for.
 * @returns ends the waiting
 */
export function afterPaint(action: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const frame = requestAnimationFrame(() => (timer = setTimeout(action)));
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}
