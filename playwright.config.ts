import { readdirSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

const asRoot = process.getuid?.() === 0 ? ['--no-sandbox'] : [];

/**
 * What Chromium need not do for a test. The last such list counts: the first rows are Playwright's own. Without the last
 * row each page would load the web pages of an address bar's suggestions too, at 1.7 s of CPU.
 */
const WITHOUT = [
  'AvoidUnnecessaryBeforeUnloadCheckSync,DestroyProfileOnBrowserClose,HttpsUpgrades,PaintHolding',
  'HttpsFirstBalancedModeAutoEnable,LensOverlay,MediaRouter,ThirdPartyStoragePartitioning,AimEnabled',
  'AvoidCorsURLLoaderRestartOnRedirect,OptimizationHints,NetworkTimeServiceQuerying,PreconnectToSearch',
  'WebUIOmniboxPopup,WebUIOmniboxAimPopup,SpareRendererForSitePerProcess',
];

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: '.data/test-results/browser',
  // The tests of a file tell one story, on a server of their own; files have nothing in common, and go side by side.
  workers: process.env['BASE_URL'] ? 1 : 2,
  projects: readdirSync(new URL('tests/browser', import.meta.url))
    .filter((file) => file.endsWith('.spec.ts'))
    .map((file) => ({ name: file.slice(0, -'.spec.ts'.length), testMatch: file })),
  fullyParallel: false,
  retries: 0,
  timeout: 360_000,
  // Generous: a slow machine is no failure.
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json']],
  use: {
    // Before the test's own end, so that what was waited for is told.
    actionTimeout: 60_000,
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
        `--disable-features=${WITHOUT.join(',')}`,
      ],
    },
  },
});
