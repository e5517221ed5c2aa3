import { expect, type Page } from '@playwright/test';
import {
  emailOf,
  expectNone,
  fillSignIn,
  LIVE,
  MARKED,
  putMarkedItem,
  query,
  recordAnswers,
  RECORDS,
  signInOverHttp,
  studio,
  VALUE_MARKS,
  undoButton,
  test,
} from './setting';

/** The whole way: gate, look, undo, release, and have it enforced. Each step stands on the one before. */
test.describe.configure({ mode: 'serial' });

let page: Page;
let asVolunteer: Page;

const tile = (name: string) => page.getByRole('radiogroup', { name: 'View as' }).getByRole('radio', { name });
const line = (name: string) =>
  page.getByRole('listitem', { name: new RegExp(`^${name.replace(/[()]/g, '\\$&')}:`) });
const row = (name: RegExp) => page.getByRole('treeitem', { name });
const canvas = () => page.locator('#canvas-frame');
const saved = () => expect(page.getByText(/^Saved, /)).toBeVisible();

async function find(words: string, name: RegExp): Promise<void> {
  await page.getByLabel('Search the outline').fill(words);
  await row(name).first().click();
  await page.getByLabel('Search the outline').fill('');
}

test.beforeAll(async ({ browser }) => {
  await putMarkedItem();
  page = await studio(browser);
  asVolunteer = await (await browser.newContext()).newPage();
});

test('signing in lands on the gates bench, with all its parts', async () => {
  for (const name of ['Outline', 'Canvas', 'Gate', 'Viewers'])
    await expect(page.getByRole('region', { name, exact: true })).toBeVisible();
  await expect(
    page.getByRole('treeitem', { name: /^Catalogue.*Signed out: Read-only/ }).first(),
  ).toBeVisible();
});

test('a field is picked on the canvas, and shows what holds its door open', async () => {
  await find('Item details', /^Item details/);
  await page.getByRole('button', { name: /^Record/ }).click();
  await page.getByPlaceholder('Find a record').fill('MARK-title');
  await page.getByRole('option', { name: /^MARK-title/ }).click();
  await tile('Curator').click();
  await expect(canvas().getByRole('heading', { name: 'MARK-title' })).toBeVisible();
  await canvas().getByText('Insurance value').click();
  const panel = page.getByRole('region', { name: 'Gate', exact: true });
  await expect(panel.getByRole('heading', { name: 'Insurance value', exact: true })).toBeVisible();
  await expect(panel).toContainText('follows the screens');
  await expect(panel).toContainText('Item list (column)');
});

test('gating the data everywhere answers at once in strip, rail and canvas', async () => {
  const loads: string[] = [];
  page.on('load', () => loads.push(page.url()));
  await page.getByRole('radio', { name: 'Control access to the data everywhere' }).click();
  const curatorBefore = await tile('Curator').innerText();
  await page.getByRole('button', { name: 'Add its own lines' }).click();
  expect(await tile('Curator').innerText()).toBe(curatorBefore);
  for (const name of ['Volunteer and above', 'Assistant and above', 'Conservator', 'Auditor'])
    await page.getByRole('button', { name: `Remove the line for ${name}` }).click();
  await page.getByRole('button', { name: 'Add line' }).click();
  await page.getByPlaceholder('Find a role, privilege, group, unit or person').fill('Registrar');
  await page.keyboard.press('Enter');
  await line('Registrar and above').getByRole('radio', { name: 'Edit', exact: true }).click();
  await line('Curator').getByRole('radio', { name: 'See', exact: true }).click();
  for (const [name, word] of [
    ['Registrar', 'Edit'],
    ['Head of collections', 'Edit'],
    ['Curator', 'See'],
    ['Volunteer', 'None'],
    ['Signed out', 'None'],
    ['Ines Okafor', 'See'],
  ] as const)
    await expect(tile(name).first()).toContainText(word);
  await expect(row(/Insurance value.*Volunteer: None.*Registrar: Edit.*Curator: See/).first()).toBeVisible();
  await expect(canvas().getByText('£7,319,284.50')).toBeVisible();
  await expect(canvas().getByRole('textbox', { name: 'Insurance value' })).toHaveCount(0);
  await saved();
  expect(loads).toEqual([]);
});

test('the rail is walked by arrow keys; ghosts stand for what a viewer does not get', async () => {
  await tile('Registrar').click();
  await expect(canvas().getByRole('textbox', { name: 'Insurance value' })).toHaveValue('7319284.5');
  const answers = recordAnswers(page);
  await page.keyboard.press('ArrowLeft');
  await expect(tile('Assistant')).toBeChecked();
  await expect(canvas().getByText('the value is not sent to the browser').first()).toBeVisible();
  expectNone(await answers.all(), VALUE_MARKS);
  expect(await canvas().innerText()).not.toContain('7319284');
  await page.getByLabel('Show hidden').click();
  await expect(canvas().getByText('Insurance value')).toHaveCount(0);
  await page.getByLabel('Show hidden').click();
  await canvas().focus();
  await page.keyboard.press('ArrowRight');
  await expect(tile('Registrar')).toBeChecked();
});

test('0, 1 and 2 set the level for the viewer’s role, and say first whom else they change', async () => {
  await find('Maker', /^Maker/);
  await tile('Auditor').click();
  await page.keyboard.press('0');
  await page.getByRole('alertdialog').getByRole('button', { name: 'Add the block' }).click();
  await expect(tile('Auditor')).toContainText('None');
  await page.keyboard.press('1');
  await expect(tile('Auditor')).toContainText('See');
  await tile('Volunteer').click();
  await page.keyboard.press('0');
  const dialog = page.getByRole('alertdialog');
  if (await dialog.isVisible()) await dialog.getByRole('button', { name: 'Cancel' }).click();
  await saved();
  for (let left = await undoButton(page).isEnabled(); left;) {
    await undoButton(page).click();
    await saved();
    left =
      (await tile('Auditor').innerText()).includes('None') ||
      (await tile('Volunteer').innerText()).includes('None');
  }
});

test('a screen’s menu item follows its screen by itself', async () => {
  await page.getByLabel('Search the outline').fill('Stores');
  await row(/^Stores/)
    .and(page.locator('[title^="Screen."]'))
    .click();
  for (const name of ['Volunteer and above', 'Conservator', 'Curator', 'Auditor'])
    await page.getByRole('button', { name: `Remove the line for ${name}` }).click();
  await page.getByRole('button', { name: 'Add line' }).click();
  await page.getByPlaceholder('Find a role, privilege, group, unit or person').fill('Registrar');
  await page.keyboard.press('Enter');
  await expect(line('Registrar and above')).toBeVisible();
  await find('Stores', /^Stores.*Volunteer: None.*Registrar: Use/);
  await expect(page.getByRole('heading', { name: 'Stores' }).first()).toBeVisible();
  await expect(page.getByText('follows that screen automatically')).toBeVisible();
  await saved();
});

test('undo, redo and reload keep everything', async () => {
  const undo = undoButton(page);
  await undo.click();
  await expect(tile('Registrar')).toContainText('None');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(tile('Registrar')).toContainText('Use');
  await saved();
  await page.reload();
  await expect(tile('Registrar')).toContainText('Use');
  await expect(tile('Volunteer')).toContainText('None');
  await undo.click();
  await expect(tile('Registrar')).toContainText('None');
  await page.keyboard.press('Control+Shift+Z');
  await expect(tile('Registrar')).toContainText('Use');
  await saved();
});

test('the release stays as it was until a release, which says who gains and who loses', async () => {
  await asVolunteer.goto(`${LIVE}/items`);
  await fillSignIn(asVolunteer, emailOf('Wren Tolliver'));
  await expect(asVolunteer.getByRole('columnheader', { name: 'Insurance value' })).toBeVisible();
  await expect(asVolunteer.getByRole('link', { name: 'Stores' })).toBeVisible();
  await page.getByRole('link', { name: /^Release/ }).click();
  await expect(page.getByRole('heading', { name: 'Changes in release 2' })).toBeVisible();
  const change = page.locator('section', { has: page.getByRole('heading', { name: 'Stores', exact: true }) });
  await expect(change).toContainText('Line removed: Volunteer and above: edit.');
  await expect(change).toContainText('Lose');
  await expect(page.locator('section', { hasText: 'Items: Insurance value (data)' })).toContainText('Lose');
  await expect(change.getByText('Also affects')).toBeVisible();
  await page.getByRole('button', { name: 'Release 2' }).click();
  await page.getByLabel('Release note').fill('Stores for the annexe');
  await page.getByRole('dialog').getByRole('button', { name: 'Release', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'No unreleased changes' })).toBeVisible();
});

test('as Volunteer: no insurance value anywhere, no Stores, its address refused', async () => {
  const answers = recordAnswers(asVolunteer);
  const request = asVolunteer.request;
  for (const address of [
    'items',
    `items/${MARKED.id}`,
    `items?l_items.q=MARK`,
    'items?l_items.sort=-item_value',
    'catalogue',
  ]) {
    await asVolunteer.goto(`${LIVE}/${address}`);
    await expect(asVolunteer.getByRole('heading', { level: 1 })).toBeVisible();
    expectNone(await asVolunteer.content(), [...VALUE_MARKS, 'Insurance value']);
  }
  await expect(asVolunteer.getByRole('link', { name: 'Stores' })).toHaveCount(0);
  const refused = await asVolunteer.goto(`${LIVE}/stores`);
  expect(refused?.status()).toBe(403);
  await expect(
    asVolunteer.getByRole('heading', { name: 'You do not have access to this page' }),
  ).toBeVisible();
  // The store and shelf still stand on Item details, for volunteers to see; the list of stores does not.
  await expect(asVolunteer.getByText('Storage locations')).toHaveCount(0);
  for (const path of ['item', `item/${MARKED.id}`, 'item?q=7319284', 'item?q=MARK&sort=item_title']) {
    const answer = await request.get(`${RECORDS}/${path}`);
    expect(answer.status()).toBe(200);
    expectNone(await answer.text(), [...VALUE_MARKS, 'item_value']);
  }
  expectNone(await answers.all(), VALUE_MARKS);
});

test('as Volunteer: a hand-made request that changes the value is refused, and nothing changed', async () => {
  const send = (values: object) =>
    asVolunteer.request.patch(`${RECORDS}/item/${MARKED.id}`, {
      data: { values },
      headers: { 'If-Match': '"1"' },
    });
  const hidden = await send({ item_value: '1' });
  expect(hidden.status()).toBe(422);
  expect(hidden.headers()['content-type']).toContain('application/problem+json');
  expect((await send({ item_title: 'Mine' })).status()).toBe(403);
  const [stored] = await query(`select version, data from records where kind = 'live' and id = $1`, [
    MARKED.id,
  ]);
  expect(stored).toEqual({ version: 1, data: MARKED.values });
});

test('as Registrar: a new value is in PostgreSQL, and a wrong one is told beside its field', async ({
  browser,
}) => {
  const live = await (await browser.newContext()).newPage();
  await live.goto(`${LIVE}/items/${MARKED.id}`);
  await fillSignIn(live, emailOf('Priya Raman'));
  await expect(live).toHaveURL(`${LIVE}/items/${MARKED.id}`);
  const value = live.getByRole('textbox', { name: 'Insurance value' });
  await value.fill('a lot');
  await live.getByRole('button', { name: 'Save changes' }).click();
  await expect(live.getByText('Enter a number such as 1250.50')).toBeVisible();
  await expect(value).toBeFocused();
  await value.fill('7000.25');
  await live.getByRole('button', { name: 'Save changes' }).click();
  await expect(live.getByText('Saved.', { exact: true })).toBeVisible();
  const [stored] = await query<{ data: object }>(`select data from records where kind = 'live' and id = $1`, [
    MARKED.id,
  ]);
  expect(stored?.data).toEqual({ ...MARKED.values, item_value: '7000.25' });
});

test('as Registrar: making, an action, and deleting, each where it is open', async ({ browser }) => {
  const live = await (await browser.newContext()).newPage();
  await live.goto(`${LIVE}/loans/new`);
  await fillSignIn(live, emailOf('Agnes Holloway'));
  await live.getByRole('button', { name: 'Add loan' }).click();
  await expect(live.getByText('Loan no. is required.')).toBeVisible();
  await live.getByLabel('Loan no.').fill('LN-TEST');
  await live.getByLabel('Borrower').fill('Fellgate Gallery');
  await live.getByRole('combobox', { name: /^Item/ }).focus();
  // Who begins to type is searching already, and Enter waits for what is found.
  await live.keyboard.type('MARK-title');
  await live.keyboard.press('Enter');
  await expect(live.getByRole('combobox', { name: 'Item: MARK-title' })).toBeVisible();
  await live.getByRole('button', { name: 'Add loan' }).click();
  await expect(live.getByRole('heading', { name: 'LN-TEST' })).toBeVisible();
  await live.getByRole('button', { name: 'Approve' }).click();
  await expect(live.getByText('Done.', { exact: true })).toBeVisible();
  await expect(live.getByRole('combobox', { name: 'Status' })).toHaveValue('approved');
  await live.getByRole('link', { name: 'Items' }).click();
  await live.goto(`${LIVE}/items/${MARKED.id}`);
  await live.getByRole('button', { name: 'Delete item' }).click();
  await live.getByRole('alertdialog').getByRole('button', { name: 'Delete item' }).click();
  await expect(live.getByText('another record refers to it')).toBeVisible();
  const [loan] = await query<{ id: string }>(`select id from records where data->>'loan_number' = 'LN-TEST'`);
  await live.goto(`${LIVE}/loans/${loan?.id}`);
  await live.getByRole('button', { name: 'Delete loan' }).click();
  await live.getByRole('alertdialog').getByRole('button', { name: 'Delete loan' }).click();
  await expect(live.getByRole('heading', { name: 'Loan list' })).toBeVisible();
  expect(await query(`select id from records where id = $1`, [loan?.id])).toEqual([]);
});

test('signed out: only the public catalogue; anything else leads to signing in and back', async ({
  browser,
}) => {
  const live = await (await browser.newContext()).newPage();
  const answers = recordAnswers(live);
  await live.goto(LIVE);
  await expect(live).toHaveURL(`${LIVE}/catalogue`);
  await expect(live.getByRole('navigation').getByRole('link')).toHaveText(['Catalogue']);
  await live.goto(`${LIVE}/catalogue?l_catalogue.q=MARK`);
  await expect(live.getByText('MARK-title')).toBeVisible();
  for (const closed of ['items', `items/${MARKED.id}`, 'stores', 'no/such/place']) {
    await live.goto(`${LIVE}/${closed}`);
    await expect(live).toHaveURL(new RegExp(`/sign-in\\?back=${encodeURIComponent(`${LIVE}/${closed}`)}$`));
  }
  expectNone(await answers.all(), [
    'MARK-store',
    'MARK-lender',
    'MARK-notes',
    'MARK-accession',
    '7000.25',
    '7,000.25',
  ]);
  await live.goto(`${LIVE}/items?l_items.q=ewer`);
  await fillSignIn(live, emailOf('Marcus Bell'));
  await expect(live).toHaveURL(`${LIVE}/items?l_items.q=ewer`);
});

test('hidden and missing are told apart by nothing', async ({ playwright, baseURL }) => {
  const request = await playwright.request.newContext(baseURL ? { baseURL } : {});
  await signInOverHttp(request, 'Wren Tolliver');
  const without = (text: string, word: string): string => text.replaceAll(word, 'X');
  for (const [hidden, missing] of [
    ['item?sort=item_value', 'item?sort=nothing'],
    ['loan', 'nothing'],
    ['item/MARKED0001/actions/a_item_release', 'item/MARKED0001/actions/nothing'],
  ] as const) {
    const ask = async (path: string) => {
      const answer = path.includes('actions')
        ? await request.post(`${RECORDS}/${path}`, { data: {}, headers: { 'If-Match': '"1"' } })
        : await request.get(`${RECORDS}/${path}`);
      return {
        status: answer.status(),
        text: without(without(await answer.text(), 'item_value'), 'nothing'),
      };
    };
    expect(await ask(hidden)).toEqual(await ask(missing));
  }
  await request.dispose();
});
