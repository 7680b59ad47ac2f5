import { defineConfig } from '@playwright/test';

const PORT = 4873;

/** The real interface, in Debian's Chromium, against the production build. */
export default defineConfig({
  testDir: 'e2e',
  fullyParallel: true,
  // one more than the two cores: the test that kills browsers mostly waits
  workers: 3,
  timeout: 120_000,
  expect: { timeout: 8_000 },
  forbidOnly: true,
  // a second try on a busy machine; what needed one is reported as flaky, not hidden
  retries: 1,
  reporter: [['list'], ['json', { outputFile: 'test-results/interface.json' }]],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    permissions: ['clipboard-read', 'clipboard-write'],
    // recorded at the second try only: recording every step makes the tests a good deal slower
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: process.env['CHROME_BIN'] ?? '/usr/bin/chromium',
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
