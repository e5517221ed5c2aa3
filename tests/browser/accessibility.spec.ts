import { AxeBuilder } from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { emailOf, fillSignIn, LIVE, studio } from './setting';

/** What WCAG 2.2 A and AA rules find on the page, by rule and place. */
async function violations(page: Page): Promise<string[]> {
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
  const { violations: found } = await new AxeBuilder({ page }).withTags(tags).analyze();
  return found.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${id}: ${node.html.slice(0, 160)} ${node.failureSummary ?? ''}`),
  );
}

test('the gates bench, with lines, ghosts and an open picker', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=p_item_store&viewer=role:curator');
  await expect(page.getByText('no value sent').first()).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: 'Add who' }).click();
  await expect(page.getByPlaceholder('Role, privilege, group, unit, person')).toBeFocused();
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
  await page.getByRole('button', { name: 'Add item' }).click();
  await expect(page.getByText('Title is needed.')).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.goto(`${LIVE}/items`);
  expect(await violations(page)).toEqual([]);
  await page.goto(`${LIVE}/people`);
  await expect(page.getByRole('heading', { name: 'This page is not open to you' })).toBeVisible();
  expect(await violations(page)).toEqual([]);
});
