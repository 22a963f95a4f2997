import { defineConfig } from '@playwright/test';

const port = Number(process.env.E2E_PORT ?? 4399);
export const DATA = '.cache/e2e';

export default defineConfig({
  testDir: 'tests/e2e',
  testMatch: '**/*.spec.ts',
  // One site serves all journeys, so they run one after the other.
  workers: 1,
  timeout: 240_000,
  expect: { timeout: 15_000 },
  forbidOnly: true,
  // A shared machine may stall for longer than any wait; a journey that passes at its second try is counted as flaky, not failed.
  retries: process.env.CI ? 2 : 0,
  reporter: [['line'], ['json', { outputFile: '.cache/e2e.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 15_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
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
  webServer: {
    command: 'node dist/cli/main.mjs serve --demo --fresh',
    url: `http://127.0.0.1:${port}/robots.txt`,
    timeout: 180_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
    env: { PORT: String(port), ALMANAC_DATA: DATA, ALMANAC_NOW: '2027-03-17T09:00' },
  },
});
