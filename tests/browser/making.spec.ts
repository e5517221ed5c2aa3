import { readFileSync, writeFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import pg from 'pg';
import { fillSignIn, LIVE, query, studio, test } from './setting';

test.describe.configure({ mode: 'serial' });

const FILES = ['demo/plots.csv', 'demo/inspections.csv'];
const csv = (name: string, text: string | Buffer) => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(text as string),
});
let page: Page;

async function home(): Promise<void> {
  await page.goto('/studio');
  await expect(page.getByRole('heading', { name: 'Applications' })).toBeVisible();
}
const row = (name: string) =>
  page.getByRole('row').filter({ has: page.getByRole('link', { name, exact: true }) });
async function todo(name: string, what: string): Promise<void> {
  await home();
  await page.getByRole('button', { name: `Actions for ${name}` }).click();
  await page.getByRole('menuitem', { name: what }).click();
}

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  await page.goto('/studio');
  await fillSignIn(page, 'tamsin@larkfield.example');
  await expect(page.getByRole('heading', { name: 'Applications' })).toBeVisible();
});

test('an application is made from two files: what they hold is guessed, corrected, and drawn', async () => {
  await home();
  await expect(row('Larkfield Loans Desk')).toContainText('Release 1');
  await page.getByRole('link', { name: 'New application' }).click();
  // Dropped, as they come from a folder that is open beside.
  const dropped = await page.evaluateHandle(
    (files) => {
      const transfer = new DataTransfer();
      for (const { name, text } of files) transfer.items.add(new File([text], name, { type: 'text/csv' }));
      return transfer;
    },
    FILES.map((path) => ({ name: path.replace('demo/', ''), text: readFileSync(path, 'utf8') })),
  );
  await page.getByText('drop them here').dispatchEvent('drop', { dataTransfer: dropped });
  const plots = page.getByRole('region', { name: 'Plots' });
  const inspections = page.getByRole('region', { name: 'Inspections' });
  await expect(plots.getByText('400 rows')).toBeVisible();
  await expect(inspections.getByLabel('Type of plot')).toHaveValue('points 0 0');
  await expect(plots.getByLabel('Type of yearly_rent')).toHaveValue('money');
  await expect(plots.getByLabel('Type of let_since')).toHaveValue('date dmy');
  await expect(plots.getByLabel('Is gardener required?')).not.toBeChecked();
  // A wrong guess is seen by what does not fit, and corrected.
  await plots.getByLabel('Type of soil').selectOption('number 0');
  await expect(plots.getByText('400 stay empty')).toBeVisible();
  await expect(plots.getByLabel('Is soil required?')).not.toBeChecked();
  await plots.getByLabel('Type of soil').selectOption('choice');
  await expect(plots.getByText('400 stay empty')).toBeHidden();
  await plots.getByLabel('Name of the field for size_m2').fill('Size in m²');
  await expect(page.getByLabel('Currency')).toHaveValue('GBP');
  await expect(page.getByLabel('Application name')).toHaveValue('Plots and inspections');
  await page.getByLabel('Application name').fill('Fernhill Allotments');
  await expect(page.getByLabel(/^Address/)).toHaveValue('fernhill-allotments');
  await page.getByLabel(/^Address/).fill('larkfield');
  await page.getByRole('button', { name: /^Create application with 3,400/ }).click();
  await expect(
    page.getByText('Another application already uses the address larkfield. Choose another one.'),
  ).toBeVisible();
  await page.getByLabel(/^Address/).fill('fernhill');
  await page.getByRole('button', { name: /^Create application/ }).click();
  await page.waitForURL('**/studio/fernhill/gates**');
  // Looked at as its first role: the list, with the first of the rows.
  await expect(page.getByRole('cell', { name: 'FH-001', exact: true })).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'Size in m²' })).toBeVisible();
  // What points is told by the name of the record that it points to.
  await page.getByLabel('Address in the application').fill('inspections');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /I00194/ })).toContainText('FH-372');
  const [stored] = await query<{ entities: string; records: string }>(
    `select count(distinct entity) as entities, count(*) as records from records
     where application_id = (select id from applications where slug = 'fernhill') and kind = 'sample'`,
  );
  expect(stored).toEqual({ entities: '2', records: '3400' });
});

test('a file that cannot be read is refused with its line, and nothing is made', async ({}, info) => {
  await page.goto('/studio/new');
  for (const [file, says] of [
    [csv('broken.csv', 'a,b\n1,2\n"3,4\n'), 'broken.csv: a quote opened in line 3 is never closed.'],
    [csv('latin.csv', Buffer.from([0x61, 0x0a, 0xe9, 0x0a])), 'latin.csv: line 2 is not in UTF-8.'],
    [csv('twice.csv', 'a,a\n1,2\n'), 'twice.csv: columns 1 and 2 are both called a in line 1.'],
  ] as const) {
    await page.getByLabel(/^CSV files/).setInputFiles(file);
    await expect(page.getByRole('alert').filter({ hasText: says })).toBeVisible();
    await expect(page.getByRole('button', { name: /^Create application/ })).toBeHidden();
  }
  // What is too large is refused before it is read.
  const large = info.outputPath('large.csv');
  writeFileSync(large, Buffer.alloc(33_000_000, 'a'));
  await page.getByLabel(/^CSV files/).setInputFiles(large);
  await expect(page.getByRole('alert').filter({ hasText: 'the limit is 30 MB per upload' })).toBeVisible();
});

test('it is nobody else’s: not at home, not by its address, not by the API', async ({ browser }) => {
  const other = await studio(browser, 'jonah@larkfield.example');
  await other.goto('/studio');
  await expect(other.getByRole('link', { name: 'Larkfield Loans Desk' })).toBeVisible();
  await expect(other.getByText('Fernhill')).toBeHidden();
  expect((await other.goto('/studio/fernhill/gates'))?.status()).toBe(404);
  const api = '/studio/api/applications/fernhill';
  for (const path of ['', '/definition', '/draft?since=0', '/records/x'])
    expect((await other.request.get(api + path)).status(), path).toBeGreaterThanOrEqual(404);
  // An editor neither moves nor deletes what they may edit; a reviewer does not rename it.
  for (const [method, body] of [
    ['PATCH', { slug: 'mine' }],
    ['DELETE', { name: 'Larkfield Loans Desk' }],
  ] as const) {
    const answer = await other.request.fetch('/studio/api/applications/larkfield', { method, data: body });
    expect(answer.status(), method).toBe(403);
  }
  const copy = { from: 'copy', of: 'fernhill', slug: 'mine', name: 'Mine' };
  expect((await other.request.post('/studio/api/making', { data: copy })).status()).toBe(404);
});

test('it is copied, renamed, and given another address, to which the old one leads', async () => {
  await todo('Fernhill Allotments', 'Copy…');
  await page.getByRole('dialog').getByLabel('Name').fill('Fernhill, trial');
  await page
    .getByRole('dialog')
    .getByLabel(/^Address/)
    .fill('trial');
  await page.getByRole('button', { name: 'Copy' }).click();
  await expect(row('Fernhill, trial')).toContainText('Not yet');
  await todo('Fernhill, trial', 'Rename…');
  await page.getByRole('dialog').getByLabel('Name').fill('تجربة 🌱');
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(row('تجربة 🌱')).toContainText('1 edit so far');
  await expect(row('تجربة 🌱')).toContainText('Tamsin Reed');
  await todo('Larkfield Loans Desk', 'Change address…');
  await page
    .getByRole('dialog')
    .getByLabel(/^Address/)
    .fill('loans desk');
  await page.getByRole('button', { name: 'Change address' }).click();
  await expect(page.getByRole('alert')).toContainText('lower-case letters, digits');
  await page
    .getByRole('dialog')
    .getByLabel(/^Address/)
    .fill('loans');
  await page.getByRole('button', { name: 'Change address' }).click();
  await expect(row('Larkfield Loans Desk')).toContainText('/live/loans');
  await page.goto(`${LIVE}/catalogue`);
  await expect(page).toHaveURL(/\/live\/loans\/catalogue$/);
  await page.goto('/studio/larkfield/gates?element=s_items');
  await expect(page).toHaveURL(/\/studio\/loans\/gates\?.*element=s_items/);
});

test('it is taken out as files, made again from them, and deleted once its name is written', async () => {
  await todo('Fernhill Allotments', 'Export…');
  const downloaded = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Definition' }).click();
  expect((await downloaded).suggestedFilename()).toBe('fernhill.json');
  const records = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Plots, sample' }).click();
  expect((await records).suggestedFilename()).toBe('fernhill-Plots.csv');
  const file = await (await downloaded).path();
  await page.goto('/studio/new?from=file');
  await page.getByLabel(/^Definition file/).setInputFiles(file);
  await expect(page.getByLabel('Application name')).toHaveValue('Fernhill Allotments');
  await page.getByLabel('Application name').fill('Once again');
  await page.getByLabel(/^Address/).fill('again');
  await page.getByRole('button', { name: 'Create application' }).click();
  await page.waitForURL('**/studio/again/gates**');
  await todo('تجربة 🌱', 'Delete…');
  await page
    .getByRole('dialog')
    .getByLabel(/^To confirm/)
    .fill('trial');
  await page.getByRole('button', { name: 'Delete application' }).click();
  await expect(page.getByRole('alert')).toContainText('Type the name exactly: تجربة 🌱');
  await page
    .getByRole('dialog')
    .getByLabel(/^To confirm/)
    .fill('تجربة 🌱');
  await page.getByRole('button', { name: 'Delete application' }).click();
  await expect(page.getByText('Application deleted.').first()).toBeVisible();
  await expect(row('تجربة 🌱')).toBeHidden();
  expect((await page.goto('/studio/trial/gates'))?.status()).toBe(404);
});

/** The link in the newest message to a builder's address: nobody is shown it but by mail. */
const linkTo = async (email: string): Promise<string> =>
  (
    await query<{ link: string }>('select link from outbox where "to" = $1 order by at desc limit 1', [email])
  )[0]?.link ?? '';

test('a colleague is let in by a link, chooses a password, and is at home; the last owner stays', async ({
  browser,
}) => {
  await todo('Fernhill Allotments', 'Builders…');
  const window = page.getByRole('dialog');
  await window.getByLabel('Name', { exact: true }).fill('Odile Marsh');
  await window.getByLabel('Email address').fill('odile');
  await page.getByRole('button', { name: 'Invite' }).click();
  await expect(window.getByRole('alert')).toHaveText('Enter a valid email address.');
  await window.getByLabel('Email address').fill('odile@fernhill.example');
  await window.getByLabel(/^Role(?! of)/).selectOption('reviewer');
  await page.getByRole('button', { name: 'Invite' }).click();
  await expect(
    page.getByText('An invitation has been sent to odile@fernhill.example.').first(),
  ).toBeVisible();
  const link = await linkTo('odile@fernhill.example');
  const odile = await (await browser.newContext()).newPage();
  await odile.goto(link);
  await odile.getByLabel(/^Password/).fill('beans and roses');
  await odile.getByRole('button', { name: 'Set password' }).click();
  await expect(odile.getByText('You can now sign in as odile@fernhill.example.')).toBeVisible();
  await odile.goto(link);
  await expect(odile.getByRole('heading', { name: 'This link no longer works' })).toBeVisible();
  await odile.goto('/studio');
  await odile.getByLabel('Email address').fill('odile@fernhill.example');
  await odile.getByLabel('Password').fill('beans and roses');
  await odile.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(odile.getByText('Fernhill Allotments')).toBeVisible();
  await expect(odile.getByText('Reviewer')).toBeVisible();
  await expect(odile.getByText('Larkfield')).toBeHidden();
  await page.reload();
  await todo('Fernhill Allotments', 'Builders…');
  await window.getByRole('button', { name: 'Remove Tamsin Reed' }).click();
  await page.getByRole('button', { name: 'Remove builder' }).click();
  await expect(page.getByText(/only owner/).first()).toBeVisible();
  const changed = page.waitForResponse((answer) => answer.request().method() === 'PATCH');
  await window.getByLabel('Role of Odile Marsh').selectOption('editor');
  await changed;
  await odile.reload();
  await expect(odile.getByText('Editor')).toBeVisible();
  await window.getByRole('button', { name: 'Remove Odile Marsh' }).click();
  await page.getByRole('button', { name: 'Remove builder' }).click();
  await expect(window.getByLabel('Role of Odile Marsh')).toBeHidden();
  await odile.reload();
  await expect(odile.getByRole('heading', { name: 'Create your first application' })).toBeVisible();
  // Again, as somebody with an account: the link takes effect when they say so.
  await window.getByLabel('Name', { exact: true }).fill('Odile Marsh');
  await window.getByLabel('Email address').fill('odile@fernhill.example');
  await page.getByRole('button', { name: 'Invite' }).click();
  await expect(window.getByText('not accepted yet')).toBeVisible();
  await window.getByRole('button', { name: 'Send the link to Odile Marsh again' }).click();
  await expect(page.getByText(/^A new link has been sent/).first()).toBeVisible();
  const again = await linkTo('odile@fernhill.example');
  await odile.reload();
  await expect(odile.getByRole('heading', { name: 'Create your first application' })).toBeVisible();
  await odile.goto(again);
  await odile.getByRole('button', { name: 'Accept as Odile Marsh' }).click();
  await expect(odile.getByText('Editor')).toBeVisible();
});

test('an application is made from the tables of another database, whose connection is not kept', async () => {
  const url = new URL(process.env['DATABASE_URL'] ?? '');
  const name = `second_${Date.now()}`;
  await query(`create database ${name}`);
  url.pathname = `/${name}`;
  const second = new pg.Client({ connectionString: url.href });
  await second.connect();
  await second.query(`create table sheds (id int primary key, name text not null, built date);
    create table keys (no int primary key, shed int references sheds (id), spare boolean);
    insert into sheds values (1, 'Tool shed', '2019-04-01'), (2, 'Seed store', null);
    insert into keys select n, 1 + n % 2, n % 3 = 0 from generate_series(1, 40) as n; analyze`);
  await second.end();
  await page.goto('/studio/new?from=postgres');
  const connection = page.getByLabel(/^Connection string of a PostgreSQL database/);
  await connection.fill(url.href.replace(url.password, 'wrong'));
  await page.getByRole('button', { name: 'Show tables' }).click();
  await expect(page.getByText(/rejected the user or the password/)).toBeVisible();
  await connection.fill(url.href);
  await page.getByRole('button', { name: 'Show tables' }).click();
  await page.getByRole('checkbox', { name: /^keys/ }).check();
  await page.getByRole('checkbox', { name: /^sheds/ }).check();
  await page.getByRole('button', { name: 'Check columns' }).click();
  await expect(page.getByText('40 rows', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Create application with 42 sample records' }).click();
  await page.waitForURL(/\/studio\/keys-and-sheds\/gates/);
  const [kept] = await query<{ values: string }>(
    `select string_agg(data::text, ' ') as values from records where application_id =
       (select id from applications where slug = 'keys-and-sheds')`,
  );
  expect(kept?.values).toContain('Tool shed');
  // Neither the connection nor its password is anywhere in the database.
  for (const table of ['audit_events', 'snapshots', 'edits', 'applications'])
    expect(JSON.stringify(await query(`select * from ${table}`))).not.toContain(url.password);
  await query(`drop database ${name} with (force)`);
});
