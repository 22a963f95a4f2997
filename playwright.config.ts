import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

/** The same Chromium without what draws windows: a quarter quicker. Where it is not installed, the whole one does. */
const SHELL = '/usr/bin/chromium-headless-shell';

export default defineConfig({
  testDir: 'tests/e2e',
  testMatch: '**/*.spec.ts',
  // Each file of journeys has a site of its own, so files run beside each other.
  globalSetup: './tests/e2e/setup.ts',
  workers: 2,
  timeout: 240_000,
  expect: { timeout: 30_000 },
  forbidOnly: true,
  // A shared machine may stall for longer than any wait; a journey that passes at its second try is counted as flaky, not failed.
  retries: process.env.CI ? 2 : 0,
  reporter: [['line'], ['json', { outputFile: '.cache/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 30_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? (existsSync(SHELL) ? SHELL : '/usr/bin/chromium'),
      args: [
        '--headless',
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
