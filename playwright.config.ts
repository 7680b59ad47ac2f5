import { defineConfig } from '@playwright/test';
import { chromiumHere } from './scripts/browser.cjs';

const PORT = 4873;

/** The real interface, in Debian's Chromium, against the production build. */
export default defineConfig({
  testDir: 'e2e',
  fullyParallel: true,
  // a third on two cores makes each test slower than it saves
  workers: 2,
  // long, for a busy machine: what is right is seen at once however long a test would wait for it
  timeout: 240_000,
  expect: { timeout: 40_000 },
  forbidOnly: true,
  // a second try on a busy machine; what needed one is reported as flaky, not hidden
  retries: 1,
  reporter: [['list'], ['json', { outputFile: 'test-results/interface.json' }]],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    permissions: ['clipboard-read', 'clipboard-write'],
    // recorded at the second try only: recording every step makes the tests a good deal slower
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: chromiumHere(),
      args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
    },
  },
  webServer: {
    command: 'npx tsx server/main.ts',
    env: { PORT: String(PORT) },
    url: `http://localhost:${PORT}`,
    reuseExistingServer: false,
  },
});
