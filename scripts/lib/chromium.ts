import type { LaunchOptions } from '@playwright/test';

/** Debian's Chromium without a screen; as root it needs telling. */
export const CHROMIUM: LaunchOptions = {
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
};
