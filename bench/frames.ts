import type { CDPSession, Page } from '@playwright/test';

/** What somebody sees of a scroll, in frames. */
export interface Scrolled {
  readonly shown: number;
  /** Not shown at their time, by what the browser tells of each frame. */
  readonly dropped: number;
  /** Those in which nothing stood yet where something comes. */
  readonly bare: number;
}

/** How far is scrolled, and how fast: a turn of the wheel that a hand takes in a second or two; CSS pixels, and those a second. */
const [FAR, SPEED] = [4_000, 3_000];

/** What is told of a frame. */
interface FrameTold {
  readonly state: string;
  readonly scroll_state: string;
}

/**
 * Scrolls a list or table as a hand does, by the wheel. Frames are counted by the part of the browser that shows them, not
 * by when the page hears of it: the browser moves by itself what it has, and only what comes waits for the page.
 * @param thing what stands in it, by a selector: it is looked for where things come, at the lower end on the right
 */
export async function scrolled(page: Page, selector: string, thing: string, way: 'down' | 'across'): Promise<Scrolled> {
  const box = (await page.locator(selector).first().boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  const client = await page.context().newCDPSession(page);
  await page.mouse.move(x, y);
  await watch(page, selector, thing);
  const told = await traced(client, () =>
    client.send('Input.synthesizeScrollGesture', {
      ...{ x, y, speed: SPEED, gestureSourceType: 'mouse', preventFling: true },
      ...(way === 'down' ? { yDistance: -FAR } : { xDistance: -FAR }),
    }),
  );
  await client.detach();
  const bare = await page.evaluate(() => (window as unknown as { seen: { end(): number } }).seen.end());
  const frames = told.filter(({ scroll_state }) => scroll_state !== 'SCROLL_NONE');
  const are = (state: string): number => frames.filter((frame) => frame.state.startsWith(state)).length;
  const shown = are('STATE_PRESENTED');
  if (shown === 0) throw new Error('Nothing was scrolled.');
  return { shown, dropped: are('STATE_DROPPED'), bare };
}

/** Looks before each frame that the page draws whether anything stands where things come; what the page does then comes after. */
const watch = (page: Page, selector: string, thing: string): Promise<void> =>
  page.evaluate(
    ([within, wanted]) => {
      const { right, bottom } = document.querySelector(within)!.getBoundingClientRect();
      let [bare, going] = [0, true];
      const look = (): void => {
        if (!going) return;
        if (!document.elementFromPoint(right - 24, bottom - 24)?.closest(wanted)) bare++;
        requestAnimationFrame(look);
      };
      requestAnimationFrame(look);
      const end = (): number => {
        going = false;
        return bare;
      };
      Object.assign(window, { seen: { end } });
    },
    [selector, thing] as const,
  );

/** What the browser tells of every frame while something is done. */
async function traced(client: CDPSession, act: () => Promise<unknown>): Promise<FrameTold[]> {
  const told: FrameTold[] = [];
  client.on('Tracing.dataCollected', ({ value }) => {
    for (const { name, ph, args } of value as unknown as { name: string; ph: string; args: { frame_reporter?: FrameTold } }[])
      if (name === 'PipelineReporter' && ph === 'b' && args.frame_reporter) told.push(args.frame_reporter);
  });
  await client.send('Tracing.start', { traceConfig: { includedCategories: ['cc', 'benchmark'] }, transferMode: 'ReportEvents' });
  await act();
  const complete = new Promise((resolve) => client.once('Tracing.tracingComplete', resolve));
  await client.send('Tracing.end');
  await complete;
  return told;
}
