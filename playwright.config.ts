import { defineConfig } from '@playwright/test';

const port = 4199;

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results/e2e',
  timeout: 120_000,
  expect: { timeout: 20_000 },
  workers: 1,
  forbidOnly: true,
  globalSetup: './e2e/support/data.ts',
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    trace: 'retain-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
    },
  },
  webServer: {
    command: `node apps/web/server/serve.mjs --port ${port} --demo test-results/demo`,
    url: `http://127.0.0.1:${port}/`,
    reuseExistingServer: false,
  },
});
