import { expect, type Locator, type Page } from '@playwright/test';
import { query, studio, test } from './setting';

test.describe.configure({ mode: 'serial' });

let page: Page;
const data = (): Locator => page.getByRole('region', { name: 'Data' });
const panel = (): Locator => page.getByRole('region', { name: 'Shape' });
const csv = (text: string) => ({ name: 'items.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });

async function at(element: string, sheet: 'Fields and actions' | 'Records'): Promise<void> {
  await page.goto(`/studio/larkfield/shape?element=${element}&viewer=role:registrar`);
  await expect(page.getByText(/^Saved/)).toBeVisible();
  await page.waitForFunction(() =>
    Object.keys(document.querySelector('section[aria-label="Shape"]') ?? {}).some((key) =>
      key.startsWith('__reactProps'),
    ),
  );
  await data().getByRole('radio', { name: sheet }).click();
}
const values = (kind: string, field: string): Promise<(string | null)[]> =>
  query<{ value: string | null }>(
    `select data ->> '${field}' as value from records
     where entity = 'item' and kind = '${kind}' order by created_at, id`,
  ).then((rows) => rows.map(({ value }) => value));

test.beforeAll(async ({ browser }) => {
  page = await studio(browser);
  await query(
    `update memberships set live = 'change'
     where builder_id = (select id from builders where email = 'tamsin@larkfield.example')`,
  );
});

test('sample records are searched, written in place, and several at once', async () => {
  await at('item', 'Records');
  await expect(data().getByText('1–50 of 60')).toBeVisible();
  await data().getByLabel('Search the records').fill('blue ewer');
  await expect(data().getByText('1–1 of 1')).toBeVisible();
  await data().getByLabel('Search the records').fill('');
  await data().getByRole('button', { name: 'Filter…' }).click();
  await page.getByLabel('Condition as text').fill('record.title = "Blue ewer" and record.year is not empty');
  await page.getByRole('button', { name: 'Apply' }).click();
  await expect(data().getByText('1–1 of 1')).toBeVisible();
  await data().getByRole('button', { name: 'Clear filter' }).click();
  await expect(data().getByText('1–50 of 60')).toBeVisible();
  await data().getByLabel('Search the records').fill('blue ewer');
  await data().getByRole('button', { name: 'Insurance value: £18,400.00' }).click();
  await data().getByRole('textbox', { name: 'Insurance value' }).fill('much');
  await page.keyboard.press('Enter');
  await expect(data().getByRole('alert')).toContainText('Enter a number such as 1250.50');
  await data().getByRole('textbox', { name: 'Insurance value' }).fill('18500');
  await page.keyboard.press('Enter');
  await expect(data().getByRole('button', { name: 'Insurance value: £18,500.00' })).toBeVisible();
  await data().getByLabel('Search the records').fill('');
  await expect(data().getByText('1–50 of 60')).toBeVisible();
  // All of them as they are now, not as they were before the value was written.
  await expect(data().getByRole('button', { name: 'Insurance value: £18,500.00' })).toBeVisible();
  await data().getByRole('checkbox', { name: 'Select all rows on this page' }).check();
  await data().getByRole('button', { name: 'Set a field…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('combobox', { name: 'Field' }).selectOption({ label: 'Maker' });
  await dialog.getByRole('textbox', { name: 'Maker' }).fill('Larkfield Mill');
  await dialog.getByRole('button', { name: 'Set field' }).click();
  await expect(dialog).toBeHidden();
  const makers = await values('sample', 'item_maker');
  expect(makers.filter((one) => one === 'Larkfield Mill').length).toBeGreaterThanOrEqual(50);
});

test('a CSV file is told dry, line by line, and taken in; rows are added by a form, and made up', async () => {
  await at('item', 'Records');
  await data().getByRole('button', { name: 'Import CSV…' }).click();
  const dialog = page.getByRole('dialog');
  const file = csv(
    'Accession no.,Title,Insurance value,Branch\nX1,Lamp,"1,200",Main Hall\nX2,Jar,much,Main Hall\n',
  );
  await dialog.locator('input[type=file]').setInputFiles(file);
  await expect(dialog).toContainText('This will add 2 and change 0 records.');
  await expect(dialog).toContainText(
    'Line 3, Insurance value: “much” is not a valid value for Insurance value.',
  );
  await expect(dialog.getByRole('button', { name: 'Import' })).toBeDisabled();
  await dialog.getByLabel(/Leave these cells empty/).check();
  await dialog.getByRole('button', { name: 'Import' }).click();
  await expect(page.getByText('2 added, 0 changed.').first()).toBeVisible();
  await expect(data().getByText('1–50 of 62')).toBeVisible();
  await data().getByRole('button', { name: 'Add', exact: true }).click();
  await dialog.getByRole('textbox', { name: 'Title' }).fill('Pot');
  await dialog.getByRole('button', { name: 'Add record' }).click();
  await expect(dialog.getByText('Accession no. is required.')).toBeVisible();
  await dialog.getByRole('textbox', { name: 'Accession no.' }).fill('X3');
  await dialog.getByLabel('Branch').selectOption({ label: 'Main Hall' });
  await dialog.getByRole('button', { name: 'Add record' }).click();
  await expect(data().getByText('1–50 of 63')).toBeVisible();
  await data().getByRole('button', { name: 'Generate records…' }).click();
  await dialog.getByLabel('Number of records').fill('7');
  await dialog.getByRole('button', { name: 'Generate' }).click();
  await expect(data().getByText('1–50 of 70')).toBeVisible();
});

test('a file of some megabytes is taken in as well', async () => {
  const rows = Array.from(
    { length: 30_000 },
    (_, n) => `LM.9.${n},${'A piece with a long name '.repeat(3)}${n}`,
  );
  const answer = await page.request.post(
    '/studio/api/applications/larkfield/records/item/csv?records=sample',
    {
      headers: { origin: new URL(page.url()).origin },
      multipart: {
        dry: '1',
        files: {
          name: 'pieces.csv',
          mimeType: 'text/csv',
          buffer: Buffer.from(['Accession no.,Title', ...rows].join('\n')),
        },
      },
    },
  );
  expect(answer.status()).toBe(200);
  expect((await answer.text()).trim().split('\n').at(-1)).toContain('"added":30000');
});

test('a field holds another type: what does not fit is told, and one undo gives it back', async () => {
  await at('item_year', 'Fields and actions');
  const before = await values('sample', 'item_year');
  await panel().getByLabel('Type').selectOption({ label: 'Whole number' });
  const asked = page.getByRole('alertdialog');
  await expect(asked).toContainText('cannot be converted');
  await expect(asked).toContainText(/“c\. 1\d\d0”/);
  await asked.getByRole('button', { name: 'Convert the rest' }).click();
  await expect(data().getByRole('row', { name: /^Year/ })).toContainText('whole number');
  await expect.poll(() => values('sample', 'item_year')).not.toEqual(before);
  await page.keyboard.press('Control+z');
  await expect.poll(() => values('sample', 'item_year')).toEqual(before);
  await page.keyboard.press('Control+y');
  await expect.poll(() => values('sample', 'item_year')).not.toEqual(before);
});

test('a release tells what becomes of the live records, and converts them; an older type gives them back', async () => {
  const before = await values('live', 'item_year');
  await page.goto('/studio/larkfield/release');
  const told = page.getByRole('region', { name: 'Changes to live records' });
  await expect(told).toContainText('Year (Items): Type changes from text to whole number.');
  await expect(told).toContainText(/cannot be converted.*For example/);
  const release = async (): Promise<void> => {
    await page.getByRole('button', { name: /^Release \d+…/ }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Release', exact: true }).click();
    await expect(page.getByText(/^Release \d+ is live\.$/).first()).toBeVisible();
  };
  await release();
  const turned = await values('live', 'item_year');
  expect(turned.filter((one) => one !== null && !/^\d+$/.test(one))).toEqual([]);
  expect(turned).not.toEqual(before);
  await at('item_year', 'Fields and actions');
  await panel().getByLabel('Type').selectOption({ label: 'Text' });
  await expect(data().getByRole('row', { name: /^Year/ })).toContainText(/Year\s*text/);
  await expect(page.getByText(/^Saved/)).toBeVisible();
  await page.goto('/studio/larkfield/release');
  await expect(told).toContainText('earlier value');
  await release();
  expect(await values('live', 'item_year')).toEqual(before);
});

test('live records take the right to them; an option goes into another', async ({ browser }) => {
  await at('item', 'Records');
  await data().getByLabel('Which records').selectOption('live');
  await expect(data().getByText(/^1–50 of/)).toBeVisible();
  const vera = await studio(browser, 'vera@larkfield.example');
  await vera.goto('/studio/larkfield/shape?element=item');
  const seen = vera.getByRole('region', { name: 'Data' });
  await seen.getByRole('radio', { name: 'Records' }).click();
  await expect(seen.getByText('1–50 of 70')).toBeVisible();
  await expect(seen.getByRole('button', { name: 'Import CSV…' })).toBeHidden();
  await seen.getByLabel('Which records').selectOption('live');
  await expect(seen.getByRole('alert')).toContainText('live records');
  const count = async (option: string): Promise<number> =>
    (await values('sample', 'item_condition')).filter((one) => one === option).length;
  const [fragile, stable] = [await count('fragile'), await count('stable')];
  expect(stable).toBeGreaterThan(0);
  await at('item_condition', 'Fields and actions');
  await panel().getByRole('button', { name: 'Delete Stable' }).click();
  await panel().getByLabel('Records with Stable are changed to').selectOption({ label: 'Fragile' });
  await panel().getByRole('button', { name: 'Delete option' }).click();
  await expect.poll(() => count('fragile')).toBe(fragile + stable);
});
