/** Requests have a number each, whoever asks whom. */
let last = 0;

/**
 * Asks a worker for something that can be ended.
 * @param ask with the number of the request
 * @param end tells the worker that it is no longer wanted
 */
export async function requested<T>(
  signal: AbortSignal | undefined,
  ask: (id: number) => Promise<T>,
  end: (id: number) => void,
): Promise<T> {
  const id = ++last;
  const stop = (): void => end(id);
  signal?.addEventListener('abort', stop);
  try {
    return await ask(id);
  } finally {
    signal?.removeEventListener('abort', stop);
  }
}
