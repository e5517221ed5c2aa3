import { expect, type Page } from '@playwright/test';
import { LIVE, signInOverHttp, studio, test } from './setting';

/** How many kilobytes of script each page may fetch, as they go over the wire: the gates bench takes 376 of its 380. */
const BUDGETS = { released: 255, bench: 380 };

async function scriptsOf(page: Page, path: string): Promise<number> {
  const sizes: Promise<number>[] = [];
  page.on('requestfinished', (request) => {
    if (request.resourceType() === 'script')
      sizes.push(request.sizes().then(({ responseBodySize }) => responseBodySize));
  });
  await page.goto(path, { waitUntil: 'load' });
  return (await Promise.all(sizes)).reduce((sum, one) => sum + one, 0) / 1000;
}

test('a released page keeps to its budget of script', async ({ browser }) => {
  const context = await browser.newContext();
  await signInOverHttp(context.request, 'Agnes Holloway');
  for (const path of ['/items', '/account']) {
    const page = await context.newPage();
    expect.soft(await scriptsOf(page, `${LIVE}${path}`), path).toBeLessThan(BUDGETS.released);
  }
});

for (const bench of ['gates', 'look', 'people', 'release'])
  test(`the ${bench} bench keeps to its budget of script`, async ({ browser }) => {
    const first = await studio(browser);
    const context = await browser.newContext({ storageState: await first.context().storageState() });
    const page = await context.newPage();
    expect(await scriptsOf(page, `/studio/larkfield/${bench}`)).toBeLessThan(BUDGETS.bench);
  });
