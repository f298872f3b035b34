import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/lib/chromium';

export default defineConfig({
  testDir: 'tests/e2e',
  workers: 1,
  retries: 0,
  timeout: 240_000,
  expect: { timeout: 20_000 },
  outputDir: 'test-results',
  use: {
    actionTimeout: 30_000,
    navigationTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'America/New_York',
    locale: 'en-US',
    reducedMotion: 'reduce',
    video: 'off',
    trace: 'off',
    launchOptions: CHROMIUM,
  },
});
