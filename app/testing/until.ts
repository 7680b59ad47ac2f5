/**
 * Waits for something to be so, and no longer.
 * @param tick done before each look
 * @throws Error if it is not so after a good while, which is long enough for a busy machine
 */
export async function until(isSo: () => boolean, tick: () => void = () => undefined): Promise<void> {
  for (const end = Date.now() + 60_000; Date.now() < end; await new Promise((resolve) => setTimeout(resolve, 5))) {
    tick();
    if (isSo()) return;
  }
  throw new Error(`It did not come to be so: ${String(isSo)}`);
}
