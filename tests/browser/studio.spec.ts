import { expect, type Page } from '@playwright/test';
import { fillSignIn, query, studio, undoButton, test } from './setting';

/** The gates bench as a builder works in it: by keyboard, with typed addresses, and when the server is away. */

const tile = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name: 'View as' }).getByRole('radio', { name }).first();
const canvas = (page: Page) => page.locator('#canvas-frame');
const saved = (page: Page) => expect(page.getByText(/^Saved, /)).toBeVisible();
const heading = (page: Page) =>
  page.getByRole('region', { name: 'Gate', exact: true }).getByRole('heading').first();

async function undoAll(page: Page, times: number): Promise<void> {
  for (let n = 0; n < times; n++) {
    await undoButton(page).click();
    await saved(page);
  }
}

test('a field is gated with the keyboard alone', async ({ browser }) => {
  const page = await studio(browser);
  await page.keyboard.press('/');
  await page.keyboard.type('Courier');
  await page.keyboard.press('Enter');
  await expect(heading(page)).toHaveText('Courier');
  const selected = page.locator('[role=treeitem][aria-selected=true]');
  await page.keyboard.press('Escape');
  await page.getByRole('tree').focus();
  await page.keyboard.press('ArrowUp');
  await expect(selected).toContainText('Due back');
  await page.keyboard.press('ArrowLeft');
  await expect(selected).toContainText('Loan');
  await expect(page).toHaveURL(/element=n_loan/);
  await page.keyboard.press('ArrowLeft');
  await expect(selected).toHaveAttribute('aria-expanded', 'false');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(selected).toContainText('Loan no.');
  await tile(page, 'Signed out').focus();
  for (let n = 0; n < 9; n++) await page.keyboard.press('ArrowRight');
  await expect(tile(page, 'Auditor')).toBeChecked();
  await expect(tile(page, 'Auditor')).toBeFocused();
  await expect(tile(page, 'Auditor')).toContainText('See');
  await page.keyboard.press('0');
  // Nothing else does it: a block is told before it is added.
  await expect(page.getByRole('alertdialog')).toContainText(
    'the line “Auditor (directly assigned): block” will be added',
  );
  await page.getByRole('button', { name: 'Add the block' }).press('Enter');
  await expect(tile(page, 'Auditor')).toContainText('None');
  await expect(page.getByRole('listitem', { name: 'Auditor (directly assigned): Block' })).toBeVisible();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(tile(page, 'Auditor')).toContainText('See');
  await saved(page);
});

test('a level that would change others asks first, and says whom', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_catalogue&viewer=signed-in');
  await tile(page, 'Signed in').focus();
  await page.keyboard.press('0');
  const dialog = page.getByRole('alertdialog');
  await expect(dialog).toContainText('This also changes access for others');
  await expect(dialog).toContainText('Volunteer');
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await expect(tile(page, 'Signed in')).toContainText('Read');
  await page.keyboard.press('0');
  await dialog.getByRole('button', { name: 'Change all of them' }).click();
  await expect(tile(page, 'Signed in')).toContainText('Closed');
  await expect(tile(page, 'Volunteer')).toContainText('Closed');
  await expect(tile(page, 'Signed out')).toContainText('Read');
  await saved(page);
  await undoAll(page, 1);
  await expect(tile(page, 'Volunteer')).toContainText('Read');
});

test('a level that something around it forbids is said to be so', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=p_item_value&viewer=role:lender');
  await tile(page, 'Lender').focus();
  await page.keyboard.press('2');
  await expect(page.getByText('because its container or its door gives less').first()).toBeVisible();
  await expect(
    page.getByText('Item details has its own lines, and none of them gives Lender access.'),
  ).toBeVisible();
});

test('any address can be typed on the canvas, and shows what that viewer gets', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_items&viewer=role:volunteer');
  const address = page.getByLabel('Address in the application');
  for (const [typed, said] of [
    ['/people', 'You do not have access to this page'],
    ['/no/such/place', 'Page not found'],
    ['/items/NOTTHERE', 'Page not found'],
  ] as const) {
    await address.fill(typed);
    await address.press('Enter');
    await expect(canvas(page)).toContainText(said);
  }
  await tile(page, 'Signed out').click();
  await expect(canvas(page)).toContainText(
    'Signed out is asked to sign in here, and then returns to this address.',
  );
  await page.getByRole('button', { name: 'Back to the previous screen' }).click();
  await page.getByRole('button', { name: 'Back to the previous screen' }).click();
  await tile(page, 'Keeper of accounts').click();
  await expect(canvas(page)).toContainText('accounts@larkfield.example');
});

test('clicks select; with the switch on or Alt held they work, and nothing is kept', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_items&viewer=role:registrar');
  await canvas(page).getByRole('link', { name: 'LM.1904.12' }).click();
  await expect(heading(page)).toHaveText('Accession no.');
  await expect(page.getByLabel('Address in the application')).toHaveValue('/items');
  await canvas(page)
    .getByRole('link', { name: 'LM.1904.12' })
    .click({ modifiers: ['Alt'] });
  await expect(canvas(page).getByRole('heading', { name: 'Blue ewer' })).toBeVisible();
  await canvas(page).getByRole('textbox', { name: 'Title' }).press('x');
  await expect(canvas(page).getByRole('textbox', { name: 'Title' })).toHaveValue('Blue ewer');
  await page.getByLabel('Interactive').click();
  await canvas(page).getByRole('textbox', { name: 'Title' }).fill('Red ewer');
  const before = await query(`select id, version, data from records where kind = 'sample' order by id`);
  await canvas(page).getByRole('button', { name: 'Save changes' }).click();
  await expect(page.getByText('Changes made on the canvas are not saved.').first()).toBeVisible();
  await canvas(page).getByRole('textbox', { name: 'Insurance value' }).fill('a lot');
  await canvas(page).getByRole('button', { name: 'Save changes' }).click();
  await expect(canvas(page).getByText('Enter a number such as 1250.50')).toBeVisible();
  expect(await query(`select id, version, data from records where kind = 'sample' order by id`)).toEqual(
    before,
  );
  await canvas(page).getByRole('link', { name: 'Loans' }).click();
  await expect(canvas(page).getByRole('heading', { name: 'Loan list' })).toBeVisible();
  await canvas(page).getByRole('searchbox').fill('zzz');
  await page.keyboard.press('Enter');
  await expect(canvas(page).getByText('No records match “zzz”.')).toBeVisible();
});

test('a person is pinned, looked through, kept, and taken off again', async ({ browser }) => {
  const page = await studio(browser, 'jonah@larkfield.example', 'element=s_loans&viewer=signed-out');
  await page.getByRole('button', { name: 'Pin a person…' }).click();
  await page.getByPlaceholder('Find by name, role or unit').fill('Agnes');
  await page.keyboard.press('Enter');
  await expect(tile(page, 'Agnes Holloway')).toBeChecked();
  await expect(tile(page, 'Agnes Holloway')).toContainText('Edit');
  await page.reload();
  await expect(tile(page, 'Agnes Holloway')).toBeChecked();
  await page.getByRole('button', { name: 'Unpin Agnes Holloway' }).click();
  await expect(tile(page, 'Agnes Holloway')).toHaveCount(0);
});

test('lines: exactly, a person, at most, block, and following again', async ({ browser }) => {
  const page = await studio(
    browser,
    'tamsin@larkfield.example',
    'element=n_description&viewer=role:assistant',
  );
  const row = (name: string) =>
    page.getByRole('listitem', { name: new RegExp(`^${name.replace(/[()]/g, '\\$&')}:`) });
  await row('Assistant and above').getByLabel('directly assigned only').click();
  await expect(row('Assistant (directly assigned)')).toBeVisible();
  await expect(tile(page, 'Registrar')).toContainText('See');
  await row('Assistant (directly assigned)').getByRole('radio', { name: 'At most see' }).click();
  await expect(tile(page, 'Assistant')).toContainText('See');
  await row('Assistant (directly assigned)').getByRole('radio', { name: 'Block' }).click();
  await expect(tile(page, 'Assistant')).toContainText('None');
  await page.getByRole('button', { name: 'Add line' }).click();
  await page.getByPlaceholder('Find a role, privilege, group, unit or person').fill('Marcus');
  await page.keyboard.press('Enter');
  await expect(row('Marcus Bell')).toBeVisible();
  await page.getByRole('button', { name: 'Remove these lines and follow Item details' }).click();
  await expect(tile(page, 'Assistant')).toContainText('Edit');
  await expect(page.getByRole('button', { name: 'Add its own lines' })).toBeVisible();
  await saved(page);
  await undoAll(page, 5);
  await expect(row('Assistant and above')).toBeVisible();
});

test('while the server is away nothing is lost: it says so, and saves when it is back', async ({
  browser,
}) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=n_loan&viewer=role:auditor');
  await page.route('**/draft', (route) => route.abort());
  await page.getByRole('button', { name: 'Add its own lines' }).click();
  await page.getByRole('button', { name: 'Remove the line for Everyone' }).click();
  await expect(page.getByText('Not saved: the server cannot be reached. Trying again…')).toBeVisible();
  await expect(tile(page, 'Auditor')).toContainText('None');
  await page.unroute('**/draft');
  await saved(page);
  await page.reload();
  await expect(tile(page, 'Auditor')).toContainText('None');
  await undoAll(page, 2);
});

test('an answer that is lost on the way does not make the edit twice, nor refuse it', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=n_terms&viewer=role:auditor');
  let lost = false;
  await page.route('**/draft', async (route) => {
    if (lost) return route.continue();
    lost = true;
    await route.fetch();
    await route.abort();
  });
  const auditor = page.getByRole('listitem', { name: /^Auditor[:,]/ });
  await auditor.getByRole('radio', { name: 'Block' }).click();
  await saved(page);
  await expect(page.getByText('Meanwhile')).toHaveCount(0);
  await expect(page.getByRole('listitem', { name: 'Auditor (directly assigned): Block' })).toHaveCount(1);
  await page.unroute('**/draft');
  await page.reload();
  await undoAll(page, 1);
  await expect(page.getByRole('listitem', { name: 'Auditor: See' })).toBeVisible();
});

test('an edit made after the session has ended is saved when its builder has signed in again', async ({
  browser,
}) => {
  const page = await studio(browser, 'jonah@larkfield.example', 'element=n_report&viewer=role:auditor');
  await page.request.delete('/studio/api/session');
  await page.getByRole('button', { name: 'Add its own lines' }).click();
  await expect(page.getByText('Not saved: you have been signed out.')).toBeVisible();
  const window = await page.context().newPage();
  await window.goto('/studio/larkfield/gates');
  await fillSignIn(window, 'jonah@larkfield.example');
  await window.waitForURL('**/gates**');
  await saved(page);
  await page.reload();
  await expect(page.getByRole('listitem', { name: 'Everyone: Edit' })).toBeVisible();
  await undoAll(page, 1);
});

test('an edit on its way goes along from bench to bench, and only leaving the studio warns', async ({
  browser,
}) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=n_loan&viewer=role:auditor');
  const benches = page.getByRole('navigation', { name: 'Benches' });
  await page.route('**/draft', (route) => route.abort());
  await page.getByRole('button', { name: 'Add its own lines' }).click();
  await expect(page.getByText('Not saved: the server cannot be reached.')).toBeVisible();
  await benches.getByRole('link', { name: 'People' }).click();
  await expect(page.getByRole('heading', { name: 'People', exact: true })).toBeVisible();
  await expect(page.getByText('Not saved: the server cannot be reached.')).toBeVisible();
  const warned = page.waitForEvent('dialog');
  const left = page.goto('/studio/sign-in').catch(() => 'stayed');
  const warning = await warned;
  expect(warning.type()).toBe('beforeunload');
  await warning.dismiss();
  expect(await left).toBe('stayed');
  await page.unroute('**/draft');
  await saved(page);
  await benches.getByRole('link', { name: /^Release/ }).click();
  // What was saved meanwhile is reviewed.
  await expect(page.getByRole('heading', { name: 'Loan (section on Loan details)' })).toBeVisible();
  await undoAll(page, 1);
  await expect(page.getByRole('heading', { name: 'Loan (section on Loan details)' })).toHaveCount(0);
});

test('what the address says is where one is, also by going back', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_stores&viewer=role:lender');
  await tile(page, 'Auditor').click();
  await expect(page).toHaveURL(/viewer=role(:|%3A)auditor/);
  await page.getByRole('radio', { name: 'By viewer' }).click();
  await expect(page).toHaveURL(/form=what/);
  await page.getByRole('navigation', { name: 'Benches' }).getByRole('link', { name: 'People' }).click();
  await expect(page).toHaveURL(/\/people/);
  await page.goBack();
  await expect(page.getByRole('heading', { name: /^Auditor can open/ })).toBeVisible();
  await expect(heading(page)).toHaveText('Stores');
});
