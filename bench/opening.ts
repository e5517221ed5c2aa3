import { chromium, type Browser, type BrowserContext } from '@playwright/test';
import playwright from '../playwright.config';
import { type Measure, middle } from './measure';

const ROUNDS = 9;
const MOST = 1.5;
const BENCHES = [
  { bench: 'gates', ready: '#canvas-frame[aria-busy=false]' },
  { bench: 'look', ready: '.pane-frame[aria-busy=false] h1, .pane-frame[aria-busy=false] h2' },
] as const;

/** What it took to open a page: bytes that came over the wire, and milliseconds until one can work. */
interface Opened {
  readonly bytes: number;
  readonly ms: number;
}

/** Opening the gates and the look bench with 5,000 people against 60, with nothing in the browser's cache. */
export async function measureOpening(address: string, cookie: string): Promise<Measure[]> {
  const browser = await chromium.launch(playwright.use?.launchOptions ?? {});
  try {
    const measures: Measure[] = [];
    for (const { bench, ready } of BENCHES) {
      const spent: Record<'few' | 'many', Opened[]> = { few: [], many: [] };
      for (let n = -1; n < ROUNDS; n++)
        for (const [key, slug] of [
          ['few', 'larkfield'],
          ['many', 'manypeople'],
        ] as const) {
          const opened = await open(browser, cookie, `${address}/studio/${slug}/${bench}`, ready);
          if (n >= 0) spent[key].push(opened);
        }
      const compare = (what: keyof Opened, name: string, unit: string, per: number): Measure => {
        const [many, few] = [spent.many, spent.few].map((all) => middle(all.map((one) => one[what])) / per);
        const [ours, against] = [many ?? 0, few ?? 1];
        return { name, ours, against, unit, ratio: ours / against, most: MOST };
      };
      measures.push(
        compare('bytes', `the ${bench} bench, 5,000 people against 60: script and data sent`, 'kB', 1000),
        compare('ms', `the ${bench} bench, 5,000 people against 60: until one can work`, 'ms', 1),
      );
    }
    return measures;
  } finally {
    await browser.close();
  }
}

async function open(browser: Browser, cookie: string, url: string, ready: string): Promise<Opened> {
  const context: BrowserContext = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    extraHTTPHeaders: { cookie },
  });
  try {
    const page = await context.newPage();
    const wire = await context.newCDPSession(page);
    await wire.send('Network.enable');
    let bytes = 0;
    wire.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
    const start = performance.now();
    await page.goto(url);
    await page.locator(ready).first().waitFor();
    const ms = performance.now() - start;
    await page.waitForLoadState('networkidle');
    return { bytes, ms };
  } finally {
    await context.close();
  }
}
