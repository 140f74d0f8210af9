import { defineConfig } from '@playwright/test';

/** Drives the production build. Each worker starts the application and its own world: tests/app.ts. */
export default defineConfig({
  testDir: 'tests',
  testMatch: '*.spec.ts',
  workers: 2,
  fullyParallel: false,
  // A shared machine can be several times slower for a while; CI waits longer before it gives up.
  timeout: process.env.CI ? 300_000 : 90_000,
  expect: { timeout: process.env.CI ? 60_000 : 15_000 },
  forbidOnly: Boolean(process.env.CI),
  // What passes at its second try is a defect.
  retries: 0,
  reporter: [['list'], ['./tests/summary.ts']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync'
      ]
    },
    trace: 'off'
  }
});
