import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'tests/e2e',
  workers: 1,
  retries: 0,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  outputDir: 'test-results',
  use: {
    actionTimeout: 8000,
    navigationTimeout: 20_000,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'America/New_York',
    locale: 'en-US',
    reducedMotion: 'reduce',
    video: 'off',
    trace: 'off',
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
        '--font-render-hinting=none',
      ],
    },
  },
});
