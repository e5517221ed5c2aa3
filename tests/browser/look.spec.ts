import { expect, type Browser, type Locator, type Page } from '@playwright/test';
import {
  expectNone,
  fillSignIn,
  MARKED,
  putMarkedItem,
  query,
  recordAnswers,
  studio,
  undoButton,
  test,
} from './setting';

test.describe.configure({ mode: 'serial' });
test.beforeAll(putMarkedItem);

const look = '/studio/larkfield/look';
const paneOf = (page: Page, letter: string): Locator =>
  page.getByRole('region', { name: new RegExp(`^Pane ${letter}`) });
const why = (page: Page): Locator => page.getByRole('region', { name: 'Why' });
const link = (...panes: readonly Record<string, string>[]): string =>
  `${look}?${new URLSearchParams(panes.map((one) => ['p', new URLSearchParams(one).toString()]))}`;
const ITEM = `items/${MARKED.id}`;

async function at(browser: Browser, address: string): Promise<Page> {
  const page = await studio(browser);
  await page.goto(address);
  await expect(paneOf(page, 'A').getByRole('status').first()).not.toHaveText(/Loading/);
  return page;
}

test('“can Ines see the store and shelf of the blue ewer on Sunday evening, and why”', async ({
  browser,
}) => {
  const page = await at(browser, look);
  const pane = paneOf(page, 'A');
  await expect(pane.getByRole('button', { name: 'Viewer: Ines Okafor' })).toBeVisible();
  await pane.getByRole('link', { name: 'LM.1904.12' }).click();
  await expect(pane.getByRole('heading', { name: 'Blue ewer' })).toBeVisible();
  await pane.getByRole('button', { name: /^When/ }).click();
  const when = page.getByRole('dialog');
  expect(await when.evaluate((one) => one.scrollWidth - one.clientWidth), 'nothing runs over its edge').toBe(
    0,
  );
  await page.getByRole('group', { name: 'Day' }).getByRole('button', { name: 'sun' }).click();
  await page.keyboard.press('Escape');
  await expect(pane.getByRole('button', { name: /^When: Sun.*19:00/ })).toBeVisible();
  await pane.locator('[data-element=p_item_store]').click();
  await expect(why(page)).toContainText('Why Ines Okafor has “None”: Store and shelf');
  await expect(why(page)).toContainText('Does not apply');
  await why(page).getByRole('button', { name: 'See', exact: true }).click();
  await expect(why(page)).toContainText('Line added: Ines Okafor: see.');
  await expect(why(page)).toContainText('5 other people would gain access.');
  await why(page).getByRole('button', { name: 'Apply this change' }).first().click();
  await expect(why(page)).toContainText('has “See”');
  await expect(pane.locator('[data-element=p_item_store]')).toContainText('Cellar');
  await undoButton(page).click();
  await expect(why(page)).toContainText('has “None”');
});

test('nothing that a viewer may not see is sent to their pane, also while another pane shows it', async ({
  browser,
}) => {
  const page = await studio(browser);
  const answers = recordAnswers(page);
  await page.goto(
    link(
      { viewer: 'role:curator', address: ITEM },
      { viewer: 'role:volunteer', address: ITEM },
      { viewer: 'signed-out', address: ITEM },
    ),
  );
  for (const letter of ['A', 'B', 'C'])
    await expect(paneOf(page, letter).getByRole('status').first()).not.toHaveText(/Loading/);
  await expect(paneOf(page, 'C')).toContainText('is asked to sign in here');
  await expect(page.getByRole('region', { name: 'Differences' })).toContainText('Title, Maker, Year, Notes');
  const lines = (await answers.all()).split('\n');
  // To the panes: the canvas that was left may still have been on its way, with another screen.
  const sentTo = (viewer: string): string =>
    lines.filter((line) => line.includes(`/look?viewer=${encodeURIComponent(viewer)}&pane=`)).join('\n');
  for (const [viewer, shown, hidden] of [
    ['role:curator', ['MARK-title', 'MARK-lender'], ['MARK-store']],
    ['role:volunteer', ['MARK-title', 'MARK-store'], ['MARK-lender']],
    ['signed-out', ['sign-in'], ['MARK-']],
  ] as const) {
    for (const mark of shown) expect(sentTo(viewer)).toContain(mark);
    expectNone(sentTo(viewer), hidden);
  }
  // The store is the volunteer's to see, not the curator's.
  await expect(paneOf(page, 'B').locator('[data-element=p_item_store]')).toContainText('MARK-store');
  await expect(paneOf(page, 'A').locator('[data-element=p_item_store]')).toContainText(
    'only for some of these people',
  );
});

test('one works in four panes at once: they walk together, and each keeps its changes to itself', async ({
  browser,
}) => {
  const page = await at(
    browser,
    link({ viewer: 'role:registrar', address: ITEM }, { viewer: 'role:head', address: ITEM }),
  );
  await page.getByRole('button', { name: 'Pane', exact: true }).click();
  await page.getByRole('button', { name: 'Pane', exact: true }).click();
  await expect(page.getByRole('region', { name: /^Pane / })).toHaveCount(4);
  await expect(page.getByRole('button', { name: 'Pane', exact: true })).toBeDisabled();
  const [a, b] = [paneOf(page, 'A'), paneOf(page, 'B')];
  await a.getByRole('textbox', { name: 'Title' }).fill('Only in A');
  await a.getByRole('button', { name: 'Save changes' }).click();
  await expect(page.getByText('Saved, in this pane only.').first()).toBeVisible();
  await expect(a.getByRole('heading', { name: 'Only in A' })).toBeVisible();
  await expect(a).toContainText('1 record has been changed in this pane only.');
  await expect(b.getByRole('heading', { name: 'MARK-title' })).toBeVisible();
  await b.getByRole('link', { name: 'Loans' }).click();
  for (const letter of ['A', 'B'])
    await expect(paneOf(page, letter).getByLabel('Address in the application')).toHaveValue('/loans');
  await expect(paneOf(page, 'C').getByRole('status').first()).toHaveText('Redirected to sign-in');
  await paneOf(page, 'C').getByRole('button', { name: 'Why?' }).click();
  await expect(why(page)).toContainText('Why Signed out has “Closed”: Loan list');
  // By itself again: B goes on alone.
  await page.getByLabel('Move together').uncheck();
  await b.getByRole('link', { name: 'Items' }).click();
  await expect(b.getByLabel('Address in the application')).toHaveValue('/items');
  await expect(a.getByLabel('Address in the application')).toHaveValue('/loans');
  const [row] = await query<{ title: string }>(
    `select data ->> 'item_title' as title from records where id = $1 and kind = 'sample'`,
    [MARKED.id],
  );
  expect(row?.title).toBe('MARK-title');
  // Thrown away with the pane.
  await page.getByRole('button', { name: 'Close pane A' }).click();
  await expect.poll(async () => (await query('select 1 from pane_records')).length).toBe(0);
});

test('any address can be typed; the closed ones are offered', async ({ browser }) => {
  const page = await at(browser, link({ viewer: 'role:lender', address: '' }));
  const pane = paneOf(page, 'A');
  await expect(pane.getByLabel('Address in the application')).toHaveValue('/pieces');
  const type = async (address: string): Promise<void> => {
    await pane.getByLabel('Address in the application').fill(address);
    await page.keyboard.press('Enter');
  };
  for (const [address, said] of [
    ['/items', 'No access'],
    ['/nowhere', 'Not found'],
    ['/catalogue', 'Opens, read-only'],
  ] as const) {
    await type(address);
    await expect(pane.getByRole('status').first()).toHaveText(said);
  }
  await pane.getByRole('button', { name: /closed screens$/ }).click();
  await page.getByRole('button', { name: /^Item details/ }).click();
  await expect(pane.getByLabel('Address in the application')).toHaveValue(/^\/items\/./);
  await expect(pane.getByRole('status').first()).toHaveText('No access');
});

test('differences are stepped through by keyboard, and everything can be asked about by Tab', async ({
  browser,
}) => {
  const page = await at(
    browser,
    link({ viewer: 'role:curator', address: ITEM }, { viewer: 'role:volunteer', address: ITEM }),
  );
  await expect(page.getByRole('heading', { name: /^\d+ differences on this screen/ })).toBeVisible();
  await page.getByRole('heading', { name: /^\d+ differences on this screen/ }).click();
  await page.keyboard.press('n');
  await expect(why(page)).toContainText('Item details');
  await page.keyboard.press('n');
  await expect(why(page)).toContainText('Title');
  await page.keyboard.press('Shift+N');
  await expect(why(page)).toContainText('Item details');
  const ghost = paneOf(page, 'A').locator('[data-element=p_item_store]');
  await expect(ghost).toHaveAttribute('tabindex', '0');
  await ghost.focus();
  await expect(why(page)).toContainText('Why Curator has “Depends”: Store and shelf');
});

test('a made-up viewer is put together, kept, found again, and forgotten', async ({ browser }) => {
  const page = await at(browser, link({ viewer: 'signed-out', address: 'items' }));
  await paneOf(page, 'A').getByRole('button', { name: 'Viewer: Signed out' }).click();
  await page.getByRole('option', { name: 'New custom viewer…' }).click();
  const window = page.getByRole('dialog', { name: 'Custom viewer' });
  await window.getByRole('button', { name: 'Add role' }).click();
  await window.getByLabel('Role').selectOption({ label: 'Registrar' });
  await window.getByLabel('Unit', { exact: true }).selectOption({ label: 'in Mill Annexe' });
  await window.getByLabel('Taking stock').selectOption({ label: 'Yes' });
  await window.getByLabel(/^Name, to save/).fill('Registrar of the annexe');
  await window.getByRole('button', { name: 'Save and view' }).click();
  const viewer = paneOf(page, 'A').getByRole('button', { name: /^Viewer/ });
  await expect(viewer).toHaveAccessibleName('Viewer: Registrar of the annexe');
  const when = paneOf(page, 'A').getByRole('button', { name: /^When/ });
  await expect(when).toHaveAccessibleName('When: now, Taking stock');
  await page.getByRole('button', { name: 'Signed in, 1 screen opens' }).click();
  await viewer.click();
  await page.getByRole('option', { name: 'Registrar of the annexe' }).click();
  await expect(when).toHaveAccessibleName('When: now, Taking stock');
  await page.getByRole('button', { name: 'More options for pane A' }).click();
  await page
    .getByRole('button', { name: 'Delete saved viewer Registrar of the annexe (for all builders)' })
    .click();
  await expect(viewer).toHaveAccessibleName('Viewer: Custom viewer');
  await viewer.click();
  await expect(page.getByRole('option', { name: 'Registrar of the annexe' })).toHaveCount(0);
  await page.getByPlaceholder('Find by name, role or unit').fill('conservator');
  await expect(page.getByRole('option', { name: /Tomas Lindgren/ })).toBeVisible();
});

test('a link opens the same state for another builder, at the revision that was looked at', async ({
  browser,
}) => {
  const page = await at(browser, link({ viewer: 'role:curator', address: ITEM }));
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.getByRole('button', { name: 'More options for pane A' }).click();
  await page.getByRole('button', { name: 'Copy link to this view' }).click();
  await expect(page.getByText('Link copied.').first()).toBeVisible();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied).toMatch(/draft%253A|draft%3A/);
  const other = await (await browser.newContext()).newPage();
  await other.goto(copied);
  await fillSignIn(other, 'vera@larkfield.example');
  await expect(paneOf(other, 'A').getByRole('heading', { name: 'MARK-title' })).toBeVisible();
  await expect(paneOf(other, 'A').getByRole('button', { name: 'Viewer: Curator' })).toBeVisible();
  await expect(paneOf(other, 'A').getByRole('button', { name: /^When: now/ })).toHaveCount(0);
  // What a list is asked for is in it too; how one looks is never said by an address.
  await other.goto(link({ viewer: 'role:curator', address: 'items?l_items.q=blue ewer&records=live' }));
  await expect(paneOf(other, 'A').getByRole('searchbox')).toHaveValue('blue ewer');
  await expect(paneOf(other, 'A').getByRole('row')).toHaveCount(2);
  expect(new URL(other.url()).searchParams.get('p')).not.toContain('records');
});

test('a pane whose release cannot be had says so, and has it once it can', async ({ browser }) => {
  const page = await at(browser, link({ viewer: 'role:curator', address: ITEM }));
  await page.route('**/look/definition?**', (route) => route.abort());
  const turnTo = async (on: string): Promise<void> => {
    await page.getByRole('button', { name: 'More options for pane A' }).click();
    await page.getByLabel('Version').selectOption(on);
    await page.keyboard.press('Escape');
  };
  await turnTo('release:1');
  const said = paneOf(page, 'A').getByRole('status').first();
  await expect(said).toHaveText('The definition for this pane could not be loaded. Try again.');
  await page.unroute('**/look/definition?**');
  await turnTo('draft');
  await turnTo('release:1');
  await expect(said).not.toHaveText(/could not be loaded|Loading/);
  await expect(paneOf(page, 'A').getByText('Release 1')).toBeVisible();
});
