import { defineConfig } from '@playwright/test';

/** Run by scripts/run-tests.ts, which starts the database and the built server. */
export default defineConfig({
  testDir: 'tests/e2e',
  // Every test draws up a job of its own; what changes the whole shop is tagged @alone and runs by itself.
  workers: 2,
  fullyParallel: true,
  // A second try tells a page that fails from a machine that stumbled; run-tests.ts names every test that needed one.
  retries: 1,
  // Generous: a busy machine is slow in bursts, and no test measures time.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    baseURL: process.env['E2E_URL'] ?? 'http://127.0.0.1:4399',
    viewport: { width: 1280, height: 800 },
    // What cannot be pressed or reached is said where it stands, not at the end of the test.
    actionTimeout: 60_000,
    navigationTimeout: 60_000,
    trace: 'off',
    launchOptions: {
      executablePath: process.env['SURRIK_BROWSER'] ?? '/usr/bin/chromium',
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
