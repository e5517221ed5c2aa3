import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { emailOf, fillSignIn, LIVE, studio, test } from './setting';

/** What WCAG 2.2 A and AA rules find on the page, by rule and place. */
async function violations(page: Page): Promise<string[]> {
  const { violations: found } = await new AxeBuilder({ page })
    .options({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
      // Of what is well only the fact: naming each of its nodes takes most of the time.
      resultTypes: ['violations'],
    })
    // There are no frames: nothing has to be put together in a page of its own.
    .setLegacyMode()
    // Of a long table the rows are all of a sort.
    .exclude('tr:nth-child(n+25), [role=row]:nth-child(n+25)')
    .analyze();
  return found.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${id}: ${node.html.slice(0, 160)} ${node.failureSummary ?? ''}`),
  );
}

test('the gates bench, with lines, ghosts and an open picker', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=p_item_store&viewer=role:curator');
  await expect(page.getByText('the value is not sent to the browser').first()).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: 'Add line' }).click();
  await expect(page.getByPlaceholder('Find a role, privilege, group, unit or person')).toBeFocused();
  expect(await violations(page)).toEqual([]);
});

test('the release bench', async ({ browser }) => {
  const page = await studio(browser);
  await page.getByRole('link', { name: /^Release/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  expect(await violations(page)).toEqual([]);
});

test('released screens: signing in, a list, a form with a problem, a refusal', async ({ page }) => {
  await page.goto(`${LIVE}/items/new`);
  expect(await violations(page)).toEqual([]);
  await fillSignIn(page, emailOf('Priya Raman'));
  await expect(page.getByRole('heading', { name: 'New item' })).toBeVisible();
  // Signing in led here: a page that was gone to hears what is pressed.
  await page.goto(`${LIVE}/items/new`);
  await page.getByRole('button', { name: 'Add item' }).click();
  await expect(page.getByText('Title is required.')).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.goto(`${LIVE}/items`);
  expect(await violations(page)).toEqual([]);
  await page.goto(`${LIVE}/people`);
  await expect(page.getByRole('heading', { name: 'You do not have access to this page' })).toBeVisible();
  expect(await violations(page)).toEqual([]);
});

test('the people bench in all its parts, a person, and writing a condition', async ({ browser }) => {
  const page = await studio(browser);
  for (const part of ['people', 'roles', 'privileges', 'units', 'groups', 'conditions', 'facts', 'joining']) {
    await page.goto(`/studio/larkfield/people?part=${part}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    expect([part, await violations(page)]).toEqual([part, []]);
  }
  await page.goto('/studio/larkfield/people');
  await page.getByRole('button', { name: 'Col Whitby' }).click();
  await expect(page.getByRole('dialog')).toContainText('Roles, privileges and values of the current session');
  expect(await violations(page)).toEqual([]);
  await page.goto('/studio/larkfield/gates?element=s_piece&viewer=role:lender');
  await page.getByRole('button', { name: 'Edit the condition for Lender' }).click();
  await page.getByLabel('Condition as text').fill('record.lender_email = us');
  expect(await violations(page)).toEqual([]);
  await page.goto('/studio/larkfield/gates?element=item');
  await expect(page.getByRole('heading', { name: 'Doors of Items' })).toBeVisible();
  expect(await violations(page)).toEqual([]);
});

test('released screens: a filter, many at once, a locked field, looking after people', async ({
  browser,
}) => {
  const signedIn = async (name: string, address: string): Promise<Page> => {
    const page = await (await browser.newContext()).newPage();
    await page.goto(`${LIVE}/sign-in?back=${encodeURIComponent(`${LIVE}/${address}`)}`);
    await fillSignIn(page, emailOf(name));
    await page.waitForURL(`**${LIVE}/${address}`);
    return page;
  };
  const items = await signedIn('Priya Raman', 'items');
  await items.getByRole('button', { name: 'Filter' }).click();
  expect(await violations(items)).toEqual([]);
  await items.getByRole('button', { name: 'Bulk edit' }).click();
  expect(await violations(items)).toEqual([]);
  const loans = await signedIn('Marcus Bell', 'loans');
  await loans.locator('tbody tr a').first().click();
  await loans.getByLabel('Unlock Approved by').click();
  expect(await violations(loans)).toEqual([]);
  const people = await signedIn('Delia Marsh', 'people');
  await expect(people.getByRole('button', { name: /^Edit / }).first()).toBeVisible();
  expect(await violations(people)).toEqual([]);
  const pieces = await signedIn('Harriet Arkwright', 'pieces');
  expect(await violations(pieces)).toEqual([]);
});

test('the look bench with two panes, its windows, and the grid in its forms', async ({ browser }) => {
  const page = await studio(browser);
  await page.goto('/studio/larkfield/look');
  await expect(page.getByRole('heading', { name: /difference/ })).toBeVisible();
  const pane = page.getByRole('region', { name: /^Pane A/ });
  await pane.getByRole('link', { name: 'LM.1904.12' }).click();
  await pane.locator('[data-element=p_item_store]').click();
  await page.getByRole('region', { name: 'Why' }).getByRole('button', { name: 'See', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Apply this change' }).first()).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: /^When/ }).first().click();
  expect(await violations(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Search everything' })).toBeVisible();
  expect(await violations(page)).toEqual([]);
  for (const form of ['grid', 'what', 'who']) {
    await page.goto(`/studio/larkfield/gates?form=${form}&element=p_item_value&viewer=role:curator`);
    await expect(page.getByRole('radiogroup', { name: 'View', exact: true })).toBeVisible();
    expect([form, await violations(page)]).toEqual([form, []]);
  }
  await page.goto('/studio/larkfield/gates/print');
  expect(await violations(page)).toEqual([]);
});

test('a released page while standing in, and a note', async ({ page }) => {
  await page.goto(`${LIVE}/sign-in`);
  await fillSignIn(page, emailOf('Agnes Holloway'));
  await page.getByRole('button', { name: 'Act as someone else…' }).click();
  await page.getByPlaceholder('Name').fill('wren');
  await expect(page.getByRole('option')).toHaveCount(1);
  expect(await violations(page)).toEqual([]);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Acting as someone else' })).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: 'Stop acting as this person' }).click();
  await expect(page.getByRole('region', { name: 'Acting as someone else' })).toHaveCount(0);
  await page.waitForLoadState();
  await page.goto(`${LIVE}/nowhere`);
  await page.getByRole('button', { name: 'Request access…' }).click();
  expect(await violations(page)).toEqual([]);
});
