import { defineConfig } from '@playwright/test';

const port = 4199;

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results/e2e',
  timeout: 180_000,
  expect: { timeout: 30_000 },
  // two at a time take two thirds of the time of one; one that the other starved gets a second try, and is listed as flaky
  workers: 2,
  fullyParallel: true,
  retries: 1,
  forbidOnly: true,
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    // recording takes a third of the time of a test: only of one that is tried again
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
    },
  },
  webServer: {
    command: `node e2e/support/serve.mjs ${port}`,
    url: `http://127.0.0.1:${port}/`,
    reuseExistingServer: false,
    timeout: 240_000,
  },
});
