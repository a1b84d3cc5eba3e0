import { defineConfig } from '@playwright/test';

/** The real interface in Debian's Chromium, on the built application with a fresh demo. */
export default defineConfig({
  testDir: 'tests/e2e',
  // It says that a test hangs, not that the machine is slow or does other things beside.
  timeout: 300_000,
  // Jobs wait for their turn on slow machines; what never comes still fails.
  expect: { timeout: 60_000 },
  // Each has an application of its own (tests/e2e/support/demo.ts has the ports).
  workers: 2,
  // A test that fails now and then is a fault to find.
  retries: 0,
  reporter: [['list'], ['./tests/e2e/support/pageReporter.ts']],
  outputDir: 'test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    // Dates and numbers are in the reader's language and zone: the tests read in one of each.
    locale: 'en-GB',
    timezoneId: 'UTC',
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] },
    // A trace of every test costs a good part of the time; it is kept for a failure when asked for.
    trace: process.env['ALFORJA_TRACE'] ? 'retain-on-failure' : 'off',
  },
});
