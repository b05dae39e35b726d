import base from '../playwright.config.ts';

/** Tabs that are closed and tabs that meet, in a group of their own: minutes, not seconds. */
export default {
  ...base,
  testDir: '.',
  outputDir: '../test-results/faults',
  timeout: 600_000,
  workers: 2,
  fullyParallel: true,
  webServer: { ...base.webServer, cwd: '..' },
};
