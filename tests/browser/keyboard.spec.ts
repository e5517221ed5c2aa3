import { expect, type Locator, type Page } from '@playwright/test';
import { emailOf, fillSignIn, LIVE, studio, test } from './setting';

/** Presses a button, closes by Escape what opens, and expects the focus where it was. */
async function opensAndGivesBack(
  page: Page,
  opens: Locator,
  window = page.getByRole('dialog'),
): Promise<void> {
  await opens.focus();
  await page.keyboard.press('Enter');
  await expect(window).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(window).toBeHidden();
  await expect(opens).toBeFocused();
}

test('a window gives the focus back to what opened it', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_piece&viewer=role:lender');
  await opensAndGivesBack(page, page.getByRole('button', { name: 'Edit the condition for Lender' }));
  await page.goto('/studio/larkfield/people');
  await opensAndGivesBack(page, page.getByRole('button', { name: 'Col Whitby' }));
  await opensAndGivesBack(page, page.getByRole('button', { name: 'Import CSV…' }));
  await page.goto('/studio/larkfield/prove');
  await opensAndGivesBack(page, page.getByRole('button', { name: 'Dismiss…' }));
  // Out of a menu, which is gone by then: to the button of the menu.
  await page.goto('/studio');
  const actions = page.getByRole('button', { name: /^Actions for Larkfield/ });
  await actions.focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: 'Rename…' }).press('Enter');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(actions).toBeFocused();
});

test('whoever closes a window is asked before what they typed is lost', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_piece&viewer=role:lender');
  const opens = page.getByRole('button', { name: 'Edit the condition for Lender' });
  await opens.click();
  const text = page.getByLabel('Condition as text');
  const before = await text.inputValue();
  await text.fill('record.on_loan = true');
  await page.keyboard.press('Escape');
  const asked = page.getByRole('alertdialog', { name: 'Discard what you have typed?' });
  await asked.getByRole('button', { name: 'Cancel' }).click();
  await expect(text).toHaveValue('record.on_loan = true');
  await expect(text).toBeFocused();
  await page.keyboard.press('Escape');
  await asked.getByRole('button', { name: 'Discard' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(opens).toBeFocused();
  await opens.click();
  await expect(text).toHaveValue(before);
  // Nothing is lost by typing it back.
  await text.fill('record.on_loan = true');
  await text.fill(before);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
});

test('what is chosen can be seen where the system chooses the colours', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=p_item_store&viewer=role:curator');
  await page.emulateMedia({ forcedColors: 'active' });
  const background = (one: Locator): Promise<string> =>
    one.evaluate((element) => getComputedStyle(element).backgroundColor);
  for (const [chosen, other] of [
    [
      page.locator('[role=radiogroup] [aria-checked=true]'),
      page.locator('[role=radiogroup] [aria-checked=false]'),
    ],
    [
      page.locator('[role=treeitem][aria-selected=true]'),
      page.locator('[role=treeitem][aria-selected=false]'),
    ],
  ] as const)
    expect(await background(chosen.first())).not.toBe(await background(other.first()));
  const turned = page.getByRole('switch', { name: 'Show hidden' });
  const on = await background(turned);
  const thumb = await background(turned.locator('span'));
  expect(thumb).not.toBe(on);
  await turned.click();
  expect(await background(turned)).not.toBe(on);
});

test('a condition is read out as what it is: comparisons by name, and what is reversed', async ({
  browser,
}) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_piece&viewer=role:lender');
  await page.getByRole('button', { name: 'Edit the condition for Lender' }).click();
  const window = page.getByRole('dialog');
  await page.getByLabel('Condition as text').fill('record.on_loan and not record.on_display');
  await expect(window.getByRole('group', { name: 'All of these are true' })).toBeVisible();
  const compared = window.getByRole('group', { name: 'On loan', exact: true });
  await expect(compared.getByRole('button', { name: 'not', pressed: false })).toBeVisible();
  await expect(window.getByRole('button', { name: 'not', pressed: true })).toHaveCount(1);
});

test('a released page has a title of its own, a link past its menu, and the focus at its heading', async ({
  page,
}) => {
  await page.goto(`${LIVE}/sign-in?back=${encodeURIComponent(`${LIVE}/items`)}`);
  await fillSignIn(page, emailOf('Priya Raman'));
  await page.waitForURL(`**${LIVE}/items`);
  await expect(page).toHaveTitle('Item list: Larkfield Loans Desk');
  await page.goto(`${LIVE}/items`);
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  expect(await page.evaluate(() => document.activeElement?.closest('main') !== null)).toBe(true);
  await page.locator('tbody tr a').first().click();
  await expect(page).toHaveTitle(/^.+, Item details: Larkfield Loans Desk$/);
  await expect(page.getByRole('heading', { level: 1 })).toBeFocused();
});
