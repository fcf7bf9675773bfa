import { defineConfig } from '@playwright/test';

const PORT = 4310;

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: 'test-results',
  fullyParallel: false,
  workers: 2,
  // A busy machine may be late once; a fault fails twice.
  retries: process.env.CI ? 1 : 0,
  timeout: 120_000,
  expect: { timeout: 30_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    // Who has been here before; the test of a first visit comes without it.
    storageState: {
      cookies: [],
      origins: [{ origin: `http://127.0.0.1:${PORT}`, localStorage: [{ name: 'nuvelo-first-visit', value: 'left' }] }]
    },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run'
      ]
    }
  },
  webServer: {
    command: 'node --import tsx scripts/fresh-studio.ts && node build/index.js',
    url: `http://127.0.0.1:${PORT}`,
    env: {
      DATA_DIR: 'test-results-data',
      PORT: String(PORT),
      HOST: '127.0.0.1',
      NUVELO_LOG: 'warn'
    },
    timeout: 60_000,
    reuseExistingServer: false
  }
});
