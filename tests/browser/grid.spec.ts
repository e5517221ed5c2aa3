import { expect, type Browser, type Locator, type Page } from '@playwright/test';
import { query, studio, undoButton, test } from './setting';

test.describe.configure({ mode: 'serial' });

const grid = (page: Page): Locator => page.getByRole('treegrid', { name: 'Access overview' });
const cell = (page: Page, element: string, viewer: string): Locator =>
  page.getByRole('gridcell', { name: new RegExp(`^${element}, ${viewer}: `) }).first();

async function open(browser: Browser, element: string, viewer = 'role:volunteer'): Promise<Page> {
  const page = await studio(browser);
  await page.goto(`/studio/larkfield/gates?form=grid&element=${element}&viewer=${viewer}`);
  await expect(grid(page)).toBeVisible();
  await grid(page).focus();
  return page;
}

test('it is a treegrid with counts, levels of rows, and cells with names', async ({ browser }) => {
  const page = await open(browser, 's_items');
  await expect(grid(page)).toHaveAttribute('aria-colcount', '16');
  expect(Number(await grid(page).getAttribute('aria-rowcount'))).toBeGreaterThan(20);
  await expect(cell(page, 'Item list', 'Volunteer')).toHaveAttribute(
    'aria-label',
    'Item list, Volunteer: Edit, own lines',
  );
  const row = page.getByRole('row', { name: /^Item list/ }).first();
  await expect(row).toHaveAttribute('aria-level', '2');
  await expect(row).toHaveAttribute('aria-expanded', 'false');
  const active = await grid(page).getAttribute('aria-activedescendant');
  await expect(page.locator(`#${active}`)).toHaveAttribute('aria-label', /^Item list, Volunteer/);
  await page.keyboard.press(' ');
  await expect(row).toHaveAttribute('aria-expanded', 'true');
  // Rows are used again for others in scrolling: each is there once, in order, and one cell is the keyboard's.
  await page.getByRole('button', { name: 'Expand all' }).click();
  await grid(page).focus();
  for (let n = 0; n < 4; n++) await page.keyboard.press('PageDown');
  await expect(page.locator('.cell-focused')).toHaveCount(1);
  // A key that was pressed may still be on its way.
  const focused = (): Promise<string | null> => page.locator('#cell-focused').getAttribute('aria-label');
  let named = await focused();
  await expect
    .poll(
      async () => {
        const before = named;
        named = await focused();
        return named === before;
      },
      { intervals: [500] },
    )
    .toBe(true);
  await grid(page).evaluate((scroller) => (scroller.scrollTop = 0));
  await expect(page.getByRole('row').nth(1)).toHaveAttribute('aria-rowindex', '2');
  await expect(page.locator('#cell-focused')).toHaveAttribute('aria-label', named ?? '');
  await page.keyboard.press('ArrowDown');
  await expect
    .poll(async () => {
      const places = await grid(page)
        .getByRole('row')
        .evaluateAll((rows) => rows.map((one) => Number(one.getAttribute('aria-rowindex'))));
      return places.length > 20 && places.every((place, n) => n < 2 || place === (places[n - 1] ?? 0) + 1);
    })
    .toBe(true);
});

test('filters say how much they hold, and show what leads there', async ({ browser }) => {
  const page = await open(browser, 's_items');
  await page.getByLabel('Search the grid').fill('store and shelf');
  await expect(page.getByText(/^\d+ of 257$/)).toBeVisible();
  await expect(page.getByRole('rowheader', { name: 'Item details Screen' })).toBeVisible();
  await page.getByRole('button', { name: 'Clear filters' }).click();
  const counts: number[] = [];
  for (const which of ['own', 'doors', 'conditional', 'differ']) {
    await page.getByLabel('Rows to show').selectOption(which);
    const text = (await page.getByText(/^\d+ of 257$/).textContent()) ?? '';
    counts.push(Number(text.split(' ')[0]));
  }
  for (const count of counts) expect(count).toBeGreaterThan(0);
  await page.getByLabel('Second column').selectOption({ label: 'Registrar' });
  await page.getByLabel('First column').selectOption({ label: 'Registrar' });
  await expect(page.getByText('0 of 257')).toBeVisible();
});

test('a range is set by keyboard after saying who loses, with one undo; and cleared to follow', async ({
  browser,
}) => {
  const page = await open(browser, 'p_item_title');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.locator('[aria-selected=true]')).toHaveCount(4);
  await page.keyboard.press('0');
  const dialog = page.getByRole('alertdialog');
  await expect(dialog).toContainText('2 elements for Volunteer, Assistant');
  await expect(dialog).toContainText(/\d+ people lose/);
  await dialog.getByRole('button', { name: 'Apply change' }).click();
  for (const element of ['Title', 'Maker'])
    await expect(
      page.locator(`[aria-label^="${element}, Assistant: None, own lines"]`).first(),
    ).toBeVisible();
  await expect(page.getByText(/^Saved/)).toBeVisible();
  await undoButton(page).click();
  await expect(page.locator('[aria-label^="Title, Assistant: None"]')).toHaveCount(0);
  await expect(page.getByText(/^Saved, no change/)).toBeVisible();
  await page.goto('/studio/larkfield/gates?form=grid&element=p_item_lender&viewer=role:volunteer');
  await grid(page).focus();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('alertdialog')).toContainText('1 element now follows');
  await page.getByRole('button', { name: 'Cancel' }).click();
});

test('“like Volunteer”: a column is copied to another', async ({ browser }) => {
  const page = await open(browser, 's_items', 'role:volunteer');
  await page.keyboard.press('Control+c');
  for (let n = 0; n < 6; n++) await page.keyboard.press('ArrowRight');
  await expect(cell(page, 'Item list', 'Lender')).toHaveClass(/cell-focused/);
  await page.keyboard.press('Control+v');
  const window = page.getByRole('dialog', { name: 'Copy access' });
  await expect(window.getByLabel('Role to change')).toHaveValue('lender');
  await expect(window.getByLabel('Role to copy from')).toHaveValue('volunteer');
  await window.getByRole('button', { name: 'Copy role access…' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('Copy access of Volunteer to Lender');
  await expect(page.getByRole('alertdialog')).toContainText(/people gain/);
  await page.getByRole('button', { name: 'Cancel' }).click();
});

test('Enter on a cell gives the same why as the panel', async ({ browser }) => {
  const page = await open(browser, 'p_item_store', 'role:curator');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('note')).toContainText('Why Curator has “Depends”: Store and shelf');
  // What it hangs on is told with it, and how many of its people have it.
  const panel = page.getByRole('region', { name: 'Gate' });
  await expect(panel).toContainText('session.taking_stock = true differs from person to person');
  await expect(panel).toContainText('Among people with Curator: see for 1 of 7');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('note')).toHaveCount(0);
});

test('the two questions, as lists', async ({ browser }) => {
  const page = await open(browser, 'p_item_value', 'role:lender');
  await page.getByRole('radio', { name: 'By viewer' }).click();
  await expect(page.getByRole('heading', { name: /^Lender can open 2 of 18 screens/ })).toBeVisible();
  await page.getByRole('radio', { name: 'By element' }).click();
  await expect(
    page.getByRole('heading', { name: /^46 of 62 people have access to Insurance value/ }),
  ).toBeVisible();
  await expect(page.getByText('through the role Head of collections').first()).toBeVisible();
});

test('as a file, and on paper', async ({ browser }) => {
  const page = await open(browser, 's_items');
  const file = await page.request.get('/studio/api/applications/larkfield/grid/csv');
  const text = await file.text();
  expect(text.split('\r\n')[0]).toContain('Element,Kind,Lines,Signed out,Signed in,Volunteer');
  expect(text).toContain('Store and shelf (field on Item details),Field,own,');
  await page.goto('/studio/larkfield/gates/print');
  for (const one of ['Release', 'Printed', 'Legend', 'Name', 'Signature'])
    await expect(page.getByText(one, { exact: true }).first()).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  const pdf = await page.pdf({ preferCSSPageSize: true });
  expect(pdf.byteLength).toBeGreaterThan(10_000);
});

test('the palette finds elements, viewers, people, benches and commands', async ({ browser }) => {
  const page = await open(browser, 's_items');
  await page.keyboard.press('Control+k');
  const dialog = page.getByRole('dialog', { name: 'Search everything' });
  await dialog.getByRole('combobox').fill('store and shelf');
  await expect(dialog.getByRole('option', { name: /Store and shelf.*Item details/ })).toBeVisible();
  await dialog.getByRole('combobox').fill('priya');
  await expect(dialog.getByRole('option', { name: /Priya Raman/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: /^Pane A, Priya Raman/ })).toBeVisible();
  await page.keyboard.press('Control+k');
  await dialog.getByRole('combobox').fill('people bench');
  await expect(dialog.getByRole('option', { name: /^People/ })).toBeVisible();
});

test('the owner gives the right to look at live records; it is in the audit trail', async ({ browser }) => {
  const page = await studio(browser);
  const api = '/studio/api/applications/larkfield/builders';
  const headers = { Origin: new URL(page.url()).origin };
  const { builders } = (await (await page.request.get(api)).json()) as {
    builders: { id: string; name: string; live: string }[];
  };
  const jonah = builders.find(({ name }) => name === 'Jonah Pell');
  expect(jonah?.live).toBe('none');
  const given = await page.request.put(api, { data: { builder: jonah?.id, live: 'read' }, headers });
  expect(given.status()).toBe(204);
  const other = await studio(browser, 'jonah@larkfield.example');
  const refused = await other.request.put(api, { data: { builder: jonah?.id, live: 'change' }, headers });
  expect(refused.status()).toBe(403);
  const [event] = await query(`select detail from audit_events where what = 'live-right'`);
  expect(event).toMatchObject({ detail: { live: 'read' } });
  await page.request.put(api, { data: { builder: jonah?.id, live: 'none' }, headers });
});
