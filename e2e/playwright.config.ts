import { defineConfig } from '@playwright/test';

const PORT = 4757;

export default defineConfig({
  testDir: 'specs',
  outputDir: 'results',
  workers: 1,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: [
    ['list'],
    ...(process.env['HOVLIX_RESULTS'] ? [['json', { outputFile: process.env['HOVLIX_RESULTS'] }] as const] : []),
  ],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 390, height: 844 },
    trace: 'retain-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        '--autoplay-policy=no-user-gesture-required',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
  webServer: {
    command: `../start --port ${PORT}`,
    url: `http://localhost:${PORT}/api/status`,
    timeout: 600_000,
    reuseExistingServer: false,
  },
});
