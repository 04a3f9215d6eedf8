import { defineConfig } from '@playwright/test';

// Debian's Chromium, two workers (two cores), each with a server of its own; no second tries: a test that passes only
// sometimes is a failure.
export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/server.ts',
  workers: 2,
  retries: 0,
  timeout: 60_000,
  outputDir: 'test-results',
  expect: { timeout: 20_000 },
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // It stores the whole build for every new page, which takes longer than most tests: on only where it is what is tested.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
