import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  workers: 1,
  timeout: 180_000,
  // Patient, for a machine that does something else as well: what has to be quick is measured where it is said.
  expect: { timeout: 20_000 },
  outputDir: '../test-results',
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  use: {
    actionTimeout: 20_000,
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
    },
  },
  projects: [
    { name: 'phone', testMatch: /(path|offline|live|places|book|par|desk|record|station)\.spec\.ts/, use: { viewport: { width: 390, height: 844 }, hasTouch: true } },
    { name: 'wide', testMatch: /(path|places|desk)\.spec\.ts/, use: { viewport: { width: 1280, height: 800 } } },
    { name: 'server', testMatch: /durability\.spec\.ts/ },
  ],
});
