import { defineConfig } from '@playwright/test';

const asRoot = process.getuid?.() === 0 ? ['--no-sandbox'] : [];

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: '.data/test-results/browser',
  // They share one server and one draft, and tell one story.
  workers: 1,
  fullyParallel: false,
  retries: 0,
  timeout: 180_000,
  // Generous: a slow machine is no failure.
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json']],
  use: {
    baseURL: process.env['BASE_URL'] ?? 'http://127.0.0.1:4620',
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        ...asRoot,
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
