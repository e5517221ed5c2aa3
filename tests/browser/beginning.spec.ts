import { expect, type Browser, type Page } from '@playwright/test';
import type { Definition } from '@/core/model';
import { fillSignIn, query, test } from './setting';

test.describe.configure({ mode: 'serial' });

/** From two files to people at work: an application of one's own, with no help but the screen. */
const BENCH = '/studio/fernhill';
const PEOPLE = ['Ada Birch,Warden', 'Corin Pike,Warden'].concat(
  [
    'Silas Frost',
    'Hollis Thorne',
    'Nessa Underhill',
    'Greta Dunmore',
    'Wren Pike',
    'Tamar Garrow',
    'Odd Lund',
  ].map((name) => `${name},Gardener`),
  'Vera Moss,',
);
const addressOf = (name: string): string => `${name.toLowerCase().replace(' ', '.')}@fernhill.example`;

let page: Page;
const bar = (bench: string) =>
  page.getByRole('navigation', { name: 'Benches' }).getByRole('link', { name: bench });
const saved = (): Promise<void> => expect(page.getByText(/^Saved/)).toBeVisible();
const inOutline = (name: RegExp) => page.getByRole('treeitem', { name });
/** Is a step to the first release ticked? */
const isDone = (step: string) =>
  page
    .getByRole('region', { name: 'Getting started' })
    .getByRole('listitem')
    .filter({ hasText: step, has: page.getByRole('img', { name: 'Done' }) });
const panel = (name: string) => page.getByRole('region', { name });

async function add(words: string, exactly: string): Promise<void> {
  await panel('Shape').getByRole('button', { name: 'Add here' }).click();
  await page.getByPlaceholder('Search what can be added here').fill(words);
  const offered = page.getByRole('dialog').getByRole('option', { name: exactly });
  await offered.first().click();
}

/** Opens the link that stands in the outbox for somebody, chooses a password there, and signs in. */
async function comeIn(browser: Browser, name: string): Promise<Page> {
  await page.goto(`${BENCH}/people?part=joining`);
  const message = page.getByRole('listitem').filter({ hasText: addressOf(name) });
  await message.getByRole('button', { name: /Show the link/ }).click();
  const link = (await message.getByRole('link').getAttribute('href')) ?? '';
  const own = await (await browser.newContext()).newPage();
  await own.goto(link);
  await own.getByLabel(/^Password/).fill('a long enough password');
  await own.getByRole('button', { name: /password/i }).click();
  await own.getByRole('link', { name: 'Sign in' }).click();
  await own.getByLabel('Email address').fill(addressOf(name));
  await own.getByLabel('Password').fill('a long enough password');
  await own.getByRole('button', { name: 'Sign in', exact: true }).click();
  await own.waitForURL('**/live/fernhill/**');
  return own;
}

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  await page.goto('/studio/new?from=csv');
  await fillSignIn(page, 'tamsin@larkfield.example');
});

test('two files become screens, a menu, a first role and samples', async () => {
  await page.goto('/studio/new?from=csv');
  await page.getByRole('button', { name: 'Try it with sample files' }).click();
  await expect(page.getByRole('region', { name: 'Plots' }).getByText('400 rows')).toBeVisible();
  await page.getByLabel('Application name').fill('Fernhill Allotments');
  await page.getByLabel(/^Address/).fill('fernhill');
  await page.getByRole('button', { name: /^Create application/ }).click();
  await page.waitForURL('**/studio/fernhill/gates**');
  await expect(page.getByRole('cell', { name: 'FH-001', exact: true })).toBeVisible();
});

test('a field of the data with options, on two screens, filled in for many; a list of what belongs', async () => {
  await bar('Shape').click();
  await page.getByRole('radio', { name: 'Data' }).click();
  await saved();
  await add('field', 'Field');
  await panel('Shape').getByLabel('Name', { exact: true }).fill('Upkeep');
  await page.keyboard.press('Enter');
  await panel('Shape').getByLabel('Type').selectOption({ label: 'Choice' });
  for (const [n, option] of ['Good', 'Weedy', 'Given up'].entries()) {
    if (n > 0) await panel('Shape').getByRole('button', { name: 'Add option' }).click();
    await panel('Shape')
      .getByRole('textbox', { name: `Option ${n + 1}` })
      .fill(option);
    await page.keyboard.press('Enter');
  }
  await page.getByRole('radio', { name: 'Records' }).click();
  const data = panel('Data');
  await data.getByLabel('Search the records').fill('Brookside');
  await expect(data.getByText(/^1–50 of (?!400)/)).toBeVisible();
  await data.getByRole('checkbox', { name: 'Select all rows on this page' }).check();
  await data.getByRole('button', { name: 'Set a field…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('combobox', { name: 'Field' }).selectOption({ label: 'Upkeep' });
  await dialog.getByRole('combobox', { name: 'Upkeep' }).selectOption({ label: 'Weedy' });
  await dialog.getByRole('button', { name: 'Set field' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('radio', { name: 'Screens' }).click();
  for (const screen of [/^Plot\b/, /^New plot/]) {
    await inOutline(screen).first().click();
    await page.keyboard.press('ArrowRight');
    await inOutline(/^Details/)
      .last()
      .click();
    await add('Upkeep', 'Upkeep');
    await expect(panel('Shape')).toContainText('Field on');
  }
  await inOutline(/^Plot\b/)
    .first()
    .click();
  await add('section', 'Section');
  await panel('Shape').getByLabel('Name', { exact: true }).fill('Looked at');
  await page.keyboard.press('Enter');
  await add('Inspections', 'Inspections those whose Plot is the Plot on the screen');
  await expect(panel('Shape')).toContainText('List on Plot');
  await saved();
});

test('an application with nothing in it: a kind of data with its screens, drawn on made-up records', async ({
  browser,
}) => {
  const own = await (
    await browser.newContext({ storageState: await page.context().storageState() })
  ).newPage();
  const made = await own.request.post('/studio/api/making', {
    headers: { origin: new URL(page.url()).origin },
    data: {
      from: 'nothing',
      slug: 'river',
      manners: { name: 'River', language: 'en-GB', currency: 'GBP', timeZone: 'UTC' },
    },
  });
  expect(made.status(), await made.text()).toBeLessThan(300);
  await own.goto('/studio/river/shape');
  await expect(own.getByRole('heading', { name: 'No screens yet' })).toBeVisible();
  await own.getByRole('button', { name: 'Entity with screens…' }).click();
  await own.getByRole('button', { name: 'Add entity' }).click();
  await expect(own.getByText('Enter a singular name, such as Booking.')).toBeVisible();
  await own.getByLabel('Name', { exact: true }).fill('Boat trip');
  await own.keyboard.press('Enter');
  await expect(
    own.getByRole('region', { name: 'Data' }).getByRole('heading', { name: 'Boat trips' }),
  ).toBeVisible();
  await own.getByRole('radio', { name: 'Screens' }).click();
  await own
    .getByRole('treeitem', { name: /^Boat trip\b(?!s)/ })
    .first()
    .click();
  await own.getByRole('button', { name: 'Generate 20 sample records' }).click();
  await expect(own.getByLabel('Address in the application')).toHaveValue(/^\/boat-trips\/./);
  await expect(own.getByRole('region', { name: 'Canvas' }).getByText('Details')).toBeVisible();
});

test('two roles, and ten people from a file', async () => {
  await expect(isDone('Check screens and data')).toBeVisible();
  await expect(isDone('Name roles')).toBeHidden();
  await page.getByRole('link', { name: 'Name roles' }).click();
  const named = page.getByRole('main').getByRole('textbox').first();
  await named.fill('Gardener');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add role' }).click();
  await expect(named).not.toHaveValue('Gardener');
  await named.fill('Warden');
  await page.keyboard.press('Enter');
  await page.getByRole('checkbox', { name: 'Gardener' }).check();
  await saved();
  await page.getByRole('button', { name: 'People', exact: true }).click();
  await page.getByRole('button', { name: 'Import CSV…' }).click();
  const file = ['Email,Name,Roles', ...PEOPLE.map((one) => `${addressOf(one.split(',')[0] ?? '')},${one}`)];
  await page
    .getByLabel('File')
    .setInputFiles({ name: 'people.csv', mimeType: 'text/csv', buffer: Buffer.from(file.join('\n')) });
  await expect(page.getByText('10 of 10 lines contain changes.')).toBeVisible();
  await page.getByRole('button', { name: /^Apply changes \(/ }).click();
  await expect(page.getByText('10 people')).toBeVisible();
  await expect(isDone('Name roles')).toBeVisible();
});

test('gates by the panel and by keys; a gardener is looked at, who types an address that is closed', async () => {
  await bar('Gates').click();
  await inOutline(/^New plot/).click();
  await panel('Gate').getByRole('button', { name: 'Add line' }).click();
  await page.keyboard.type('Warden');
  await page
    .getByRole('option', { name: /^Warden/ })
    .first()
    .click();
  await panel('Gate').getByRole('button', { name: 'Remove the line for Gardener and above' }).click();
  await expect(panel('Gate')).toContainText('10 people have not activated their account yet');
  await inOutline(/^Plots/)
    .last()
    .click();
  await page.keyboard.press('ArrowRight');
  await inOutline(/^Yearly rent/)
    .last()
    .click();
  await page.getByRole('radio', { name: /^Gardener/ }).click();
  await page.keyboard.press('0');
  await expect(panel('Gate')).toContainText('Why Gardener has “None”: Yearly rent');
  await expect(isDone('Add people')).toBeVisible();
  await expect(isDone('Decide who gets which screen')).toBeVisible();
  await bar('Look').click();
  await page.waitForURL('**/look**');
  await panel('Viewers')
    .getByRole('button', { name: /^Gardener/ })
    .click();
  await page
    .getByLabel(/Address/)
    .first()
    .fill('plots/new');
  await page.keyboard.press('Enter');
  await expect(page.getByText('No access').first()).toBeVisible();
});

test('a section below the buttons is open to gardeners while a plot is given up', async () => {
  const api = '/studio/api/applications/fernhill';
  const definition = (await (await page.request.get(`${api}/definition`)).json()) as Definition;
  const screen = definition.areas
    .flatMap((one) => one.screens)
    .find((one) => one.binds?.record === 'existing');
  const [plot] = definition.entities;
  const gardener = definition.roles.find((one) => one.name === 'Gardener');
  const upkeep = plot?.fields.find((one) => one.name === 'Upkeep');
  const givenUp =
    upkeep?.type.kind === 'choice' && upkeep.type.options.find((one) => one.name === 'Given up');
  const soil = plot?.fields.find((one) => one.name === 'Soil');
  if (!screen || !gardener || !upkeep || !givenUp || !soil) throw new Error('The files made something else');
  const when = { compare: '=', left: { record: upkeep.id }, right: { value: givenUp.id } };
  const line = { id: 'CLEARINGLINE', who: { kind: 'role', role: gardener.id }, what: 'edit', when };
  const part = { kind: 'field', id: 'CLEARINGSOIL', field: soil.id };
  const node = { id: 'CLEARINGPART', name: 'Clearing', parts: [part] };
  const edit = {
    do: 'addElement',
    into: { list: 'sections', in: screen.id },
    at: screen.sections.length,
    node,
    gates: { [node.id]: { lines: [line] } },
    closed: {},
  };
  const answer = await page.request.post(`${api}/draft`, {
    headers: { origin: new URL(page.url()).origin },
    data: { base: 0, ask: 'edit', edit },
  });
  expect(answer.status()).toBe(200);
});

test('it is released, its samples are live, and people sign in and work', async ({ browser }) => {
  const steps = page.getByRole('region', { name: 'Getting started' });
  await steps.getByRole('button', { name: 'Close the steps' }).click();
  await expect(steps).toBeHidden();
  await page.keyboard.press('Control+k');
  await page.getByRole('dialog').getByRole('combobox').fill('getting started');
  await page.getByRole('option', { name: /^Getting started/ }).click();
  await expect(steps).toBeVisible();
  await bar('Release').click();
  await expect(page.getByText('nobody loses access')).toBeVisible();
  await page.getByRole('button', { name: 'Release 1…' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Release/ })
    .last()
    .click();
  await expect(page.getByText(/no change since release 1/).first()).toBeVisible();
  await expect(steps).toBeHidden();
  await bar('Shape').click();
  await page.getByRole('radio', { name: 'Data' }).click();
  await page.getByRole('radio', { name: 'Records' }).click();
  await panel('Data').getByLabel('Which records').selectOption('live');
  await panel('Data').getByRole('button', { name: 'Copy samples to live…' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Copy to live' }).click();
  await expect(page.getByText('3,400 records copied to live.', { exact: true })).toBeVisible();

  const gardener = await comeIn(browser, 'Silas Frost');
  await expect(gardener.getByRole('columnheader', { name: 'Site' })).toBeVisible();
  await expect(gardener.getByRole('link', { name: 'New plot' })).toHaveCount(0);
  await gardener.getByRole('searchbox').first().fill('FH-372');
  await gardener.keyboard.press('Enter');
  await gardener.getByRole('link', { name: 'FH-372' }).click();
  await expect(gardener.getByText('I00194')).toBeVisible();
  await expect(gardener.getByText('Yearly rent')).toHaveCount(0);
  // The form answers before it is saved, and takes it back.
  await gardener.getByLabel('Upkeep').selectOption({ label: 'Given up' });
  await expect(gardener.getByRole('heading', { name: 'Clearing' })).toBeVisible();
  await gardener.getByLabel('Upkeep').selectOption({ label: 'Good' });
  await expect(gardener.getByRole('heading', { name: 'Clearing' })).toBeHidden();
  await gardener.getByRole('button', { name: 'Save' }).click();
  await expect(gardener.getByText('Saved.', { exact: true })).toBeVisible();
  await gardener.goto('/live/fernhill/plots/new');
  await expect(gardener.getByRole('heading', { name: 'You do not have access to this page' })).toBeVisible();

  const warden = await comeIn(browser, 'Ada Birch');
  await warden.getByRole('link', { name: 'New plot' }).click();
  await warden.waitForURL('**/plots/new');
  await warden.getByLabel('Plot (required)').fill('FH-999');
  await warden.getByLabel(/^Site/).selectOption({ label: 'Brookside' });
  await warden.getByLabel(/^Size/).fill('62.5');
  await warden.getByLabel(/^Soil/).selectOption({ label: 'clay' });
  await warden.getByLabel(/^Yearly rent/).fill('48');
  await warden.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(warden.getByText('Added.', { exact: true })).toBeVisible();
  const [made] = await query<{ count: number }>(
    `select count(*)::int as count from records where kind = 'live' and data::text like '%FH-999%'`,
  );
  expect(made?.count).toBe(1);
});
