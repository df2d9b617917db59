import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  timeout: 270_000,
  // Only how long one waits before something counts as never coming: a busy machine is slow, not wrong.
  expect: { timeout: 20_000 },
  workers: 2,
  retries: 0,
  reporter: 'list',
  outputDir: '../test-results',
  globalSetup: './server.ts',
  use: {
    actionTimeout: 10_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
    },
    trace: 'off',
  },
});
