import { expect, type Page } from '@playwright/test';
import { emailOf, fillSignIn, LIVE, query, test } from './setting';

/** A released application as the people of the desk use it. */

async function signedIn(page: Page, name: string, address = ''): Promise<void> {
  await page.goto(`${LIVE}/sign-in?back=${encodeURIComponent(`${LIVE}${address && `/${address}`}`)}`);
  await fillSignIn(page, emailOf(name));
  await expect(page.getByRole('button', { name: 'Sign out' })).toBeVisible();
}

const column = (page: Page, n: number) => page.locator(`tbody tr td:nth-child(${n})`).allInnerTexts();

test.describe('landing', () => {
  for (const [name, address] of [
    ['Wren Tolliver', 'items'],
    ['Priya Raman', 'loans'],
    ['Delia Marsh', 'people'],
    ['Harriet Arkwright', 'pieces'],
  ] as const)
    test(`${name} lands on ${address}`, async ({ page }) => {
      await signedIn(page, name);
      await expect(page).toHaveURL(`${LIVE}/${address}`);
    });

  test('a start screen that is closed to a person is passed over', async ({ page }) => {
    await query(`update people set start_screen = 's_people' where email = $1`, [
      emailOf('Harriet Arkwright'),
    ]);
    await signedIn(page, 'Harriet Arkwright');
    await expect(page).toHaveURL(`${LIVE}/pieces`);
    await query(`update people set start_screen = null where email = $1`, [emailOf('Harriet Arkwright')]);
  });
});

test('a list is sorted, searched and paged by the server, and a page can be linked to', async ({ page }) => {
  await signedIn(page, 'Priya Raman', 'loans');
  await expect(page.getByRole('status')).toContainText('1–25 of 200');
  await page.getByRole('button', { name: 'Fee' }).click();
  await expect(page.getByRole('columnheader', { name: 'Fee' })).toHaveAttribute('aria-sort', 'ascending');
  const fees = (await column(page, 6)).map((text) => Number(text.replace(/[^\d.]/g, '')));
  expect(fees).toEqual([...fees].sort((a, b) => a - b));
  await page.getByRole('button', { name: 'Fee' }).click();
  await expect(page.getByRole('columnheader', { name: 'Fee' })).toHaveAttribute('aria-sort', 'descending');
  const [highest] = await query<{ fee: string }>(
    `select max((data->>'loan_fee')::numeric)::text as fee from records where kind = 'live' and entity = 'loan'`,
  );
  expect(Number((await column(page, 6))[0]?.replace(/[£,]/g, ''))).toBe(Number(highest?.fee));
  await page.getByRole('button', { name: 'Next' }).click();
  await expect(page.getByRole('status')).toContainText('26–50 of 200');
  await page.reload();
  await expect(page.getByRole('status')).toContainText('26–50 of 200');
  await page.getByRole('button', { name: 'Item' }).click();
  await expect(page.getByRole('columnheader', { name: 'Item' })).toHaveAttribute('aria-sort', 'ascending');
  const items = await column(page, 2);
  expect(items).toEqual([...items].sort());
  await page.getByRole('searchbox').fill('wick lifeboat');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('columnheader', { name: 'Item' })).toHaveAttribute('aria-sort', 'ascending');
  await expect.poll(() => column(page, 3)).not.toContain('Fellgate Gallery');
  expect(new Set(await column(page, 3))).toEqual(new Set(['Wick Lifeboat Trust']));
});

test('a row leads to its record, by mouse anywhere on it and by keyboard from its link', async ({ page }) => {
  await signedIn(page, 'Wren Tolliver', 'items');
  await page.getByRole('cell', { name: 'Blue ewer' }).click();
  await expect(page.getByRole('heading', { name: 'Blue ewer' })).toBeVisible();
  await expect(page.getByRole('textbox')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Save changes' })).toHaveCount(0);
  await page.goBack();
  await page.getByRole('link', { name: 'LM.1904.12' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Blue ewer' })).toBeVisible();
});

test('a conservator edits the condition and reads the rest; the form sends only what changed', async ({
  page,
}) => {
  await signedIn(page, 'Tomas Lindgren', 'items?l_items.q=Blue ewer');
  await page.getByRole('link', { name: 'LM.1904.12' }).click();
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveCount(0);
  const sent = page.waitForRequest((request) => request.method() === 'PATCH');
  await page.getByRole('combobox', { name: 'Condition' }).selectOption('Fragile');
  await page.getByRole('button', { name: 'Save changes' }).click();
  expect((await sent).postDataJSON()).toEqual({ values: { item_condition: 'fragile' } });
  await expect(page.getByText('Saved.', { exact: true })).toBeVisible();
  await page.getByRole('combobox', { name: 'Condition' }).selectOption('Stable');
  await page.getByRole('button', { name: 'Save changes' }).click();
  await expect(page.getByRole('combobox', { name: 'Condition' })).toHaveValue('stable');
});

test('the second of two writers is told, and the first keeps what they wrote', async ({ browser }) => {
  const [one, two] = await Promise.all(
    ['Priya Raman', 'Agnes Holloway'].map(async (name) => {
      const page = await (await browser.newContext()).newPage();
      await signedIn(page, name, 'items?l_items.q=Blue ewer');
      await page.getByRole('link', { name: 'LM.1904.12' }).click();
      await expect(page.getByRole('heading', { name: 'Blue ewer' })).toBeVisible();
      return page;
    }),
  );
  if (!one || !two) throw new Error('No pages');
  for (const [page, maker] of [
    [one, 'First writer'],
    [two, 'Second writer'],
  ] as const) {
    await page.getByRole('textbox', { name: 'Maker' }).fill(maker);
    await page.getByRole('button', { name: 'Save changes' }).click();
  }
  await expect(two.getByText('Someone else has changed this record.')).toBeVisible();
  await expect(two.getByRole('textbox', { name: 'Maker' })).toHaveValue('Second writer');
  await two.reload();
  await expect(two.getByRole('textbox', { name: 'Maker' })).toHaveValue('First writer');
});

test('signing out leaves nothing behind, and a missing page says so', async ({ page }) => {
  await signedIn(page, 'Priya Raman', 'loans');
  const missing = await page.goto(`${LIVE}/loans/NOTTHERE`);
  expect(missing?.status()).toBe(404);
  await expect(page.getByRole('heading', { name: 'Page not found' })).toBeVisible();
  await page.goto(`${LIVE}/loans`);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page).toHaveURL(`${LIVE}/catalogue`);
  await page.goBack();
  await expect(page.getByRole('cell', { name: 'Wick Lifeboat Trust' })).toHaveCount(0);
  expect(await (await page.request.get('/health')).json()).toEqual({ healthy: true });
  expect(await (await page.request.get('/ready')).json()).toEqual({
    ready: true,
    database: true,
    migrations: true,
  });
});
