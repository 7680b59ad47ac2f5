import { test } from '@playwright/test';
import { wander } from './wander/wanderer';

// A short walk with a fixed seed; `npm run wander -- MINUTES SEED` walks for longer, and elsewhere.
test('a random user breaks nothing, loses nothing, and can take everything back', async ({ browser, baseURL }) => {
  test.setTimeout(400_000);
  await wander(browser, baseURL!, 200, 8);
});
