import { defineConfig } from '@playwright/test';

const PORT = Number(process.env.E2E_PORT ?? 3210);
const launchOptions = {
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  timeout: 240_000,
  expect: { timeout: 30_000 },
  fullyParallel: true,
  workers: 2,
  // A second try tells a hiccup of a busy machine from a fault; bin/test names how many needed one.
  retries: 1,
  forbidOnly: Boolean(process.env.CI),
  reporter: 'list',
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    actionTimeout: 60_000,
    launchOptions,
    // Written for every test it takes nearly half the machine: what fails is traced as it is tried again.
    trace: 'on-first-retry',
    screenshot: 'only-on-failure',
    locale: 'en-GB',
    timezoneId: 'Europe/Ljubljana',
  },
  projects: [
    {
      name: 'phone',
      testMatch: /stall\/.*\.spec\.ts/,
      use: { browserName: 'chromium', viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true },
    },
    {
      name: 'desk',
      testIgnore: /stall\//,
      // The worker brings all of the Stall into each test's empty browser, a quarter of the work: where a page has to be there without the network it is let in.
      use: { browserName: 'chromium', viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' },
    },
  ],
  webServer: {
    // Idle connections stay open: one that is closed just as the runner takes it up again is no finding.
    command: `node node_modules/next/dist/bin/next start -H 127.0.0.1 -p ${PORT} --keepAliveTimeout 600000`,
    url: `http://127.0.0.1:${PORT}/api/v1/health`,
    timeout: 60_000,
    reuseExistingServer: false,
    env: { NEXT_TELEMETRY_DISABLED: '1' },
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  },
});
