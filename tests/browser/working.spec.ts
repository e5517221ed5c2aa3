import { expect, type Page } from '@playwright/test';
import { emailOf, fillSignIn, LIVE, MARKED, putMarkedItem, query, studio, test } from './setting';

test.beforeAll(putMarkedItem);

const panel = (page: Page) => page.getByRole('region', { name: 'Gate' });
const outline = (page: Page) => page.getByRole('tree', { name: 'The application' });
const canvas = (page: Page) => page.locator('#canvas-frame');
const rail = (page: Page) => page.getByRole('radiogroup', { name: 'View as' });
const focused = (page: Page) =>
  page.evaluate(() => document.activeElement?.closest('[data-region]')?.getAttribute('data-region'));

test('the places of the bench are one key away, and focus never falls to the page', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_stores&viewer=role:registrar');
  // The rail's keys work before anything has the focus.
  await page.keyboard.press('ArrowLeft');
  await expect(rail(page).getByRole('radio', { name: /^Assistant/ })).toBeChecked();
  await page.keyboard.press('ArrowRight');
  await expect(rail(page).getByRole('radio', { name: /^Registrar/ })).toBeChecked();
  await page.getByRole('link', { name: 'Skip to main content' }).focus();
  await expect(page.getByRole('link', { name: 'Skip to main content' })).toBeInViewport();
  await page.keyboard.press('Enter');
  await expect(outline(page)).toBeFocused();
  await page.keyboard.press('Enter');
  expect(await focused(page)).toBe('gate');
  await page.keyboard.press('Escape');
  await expect(outline(page)).toBeFocused();
  await page.keyboard.press('F8');
  await expect(rail(page).getByRole('radio', { name: /^Registrar/ })).toBeFocused();
  await page.keyboard.press('F6');
  await expect(outline(page)).toBeFocused();
  await page.keyboard.press('F6');
  expect(await focused(page)).toBe('canvas');
  // What had the focus is gone: it goes to the place where that stood.
  const lines = panel(page).getByRole('listitem');
  const before = await lines.count();
  const bin = panel(page).getByRole('button', { name: /^Remove the line/ });
  await bin.last().focus();
  await page.keyboard.press('Enter');
  await expect(lines).toHaveCount(before - 1);
  await expect.poll(() => focused(page)).toBe('gate');
  await page.keyboard.press('Control+z');
  await expect(lines).toHaveCount(before);
  await expect(page.getByText(/^Undone: Stores\. Line added:/).first()).toBeVisible();
  // From a name to its gate: / finds, Enter goes to what was found, Enter again to its gate.
  await page.keyboard.press('/');
  await page.keyboard.type('Out on loan');
  await page.keyboard.press('Enter');
  await expect(outline(page)).toBeFocused();
  await expect(panel(page).getByRole('heading', { level: 2 })).toHaveText('Out on loan');
  await page.keyboard.press('Enter');
  expect(await focused(page)).toBe('gate');
});

test('what is taken away offers to be taken back, and does so only while it is the last change', async ({
  browser,
}) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_report&viewer=role:registrar');
  const bin = panel(page).getByRole('button', { name: /^Remove the line/ });
  await expect(bin.first()).toBeVisible();
  const before = await bin.count();
  await bin.last().click();
  await expect(bin).toHaveCount(before - 1);
  const undo = page.getByRole('button', { name: 'Undo', exact: true }).last();
  await expect(page.getByText('Line removed.').first()).toBeVisible();
  await undo.click();
  await expect(bin).toHaveCount(before);
  await bin.last().click();
  await expect(bin).toHaveCount(before - 1);
  await expect(page.getByText('Line removed.').first()).toBeVisible();
  await bin.last().click();
  await expect(bin).toHaveCount(before - 2);
  const offer = page.getByRole('listitem').filter({ hasText: 'Line removed.' });
  await expect(offer).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(bin).toHaveCount(before - 1);
  // What it offers to take back is no longer the last change: it says so, and takes nothing back.
  await offer.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/You have made later changes/).first()).toBeVisible();
  await expect(bin).toHaveCount(before - 1);
  await page.keyboard.press('Control+z');
  await expect(bin).toHaveCount(before);
});

test('Tab through the canvas selects nothing; Enter does; ghosts say whose they are not', async ({
  browser,
}) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_item&viewer=role:lender');
  await expect(panel(page).getByRole('heading', { level: 2 })).toHaveText('Item details');
  const ghost = canvas(page).getByRole('img', { name: 'Insurance value: hidden from this viewer' });
  await expect(ghost).toBeVisible();
  await canvas(page).focus();
  for (let n = 0; n < 6; n++) await page.keyboard.press('Tab');
  expect(await focused(page)).toBe('canvas');
  await expect(panel(page).getByRole('heading', { level: 2 })).toHaveText('Item details');
  await ghost.click();
  await expect(panel(page).getByRole('heading', { level: 2 })).toHaveText('Insurance value');
  await canvas(page).getByRole('img', { name: 'Stores: hidden from this viewer' }).focus();
  await page.keyboard.press('Enter');
  await expect(panel(page).getByRole('heading', { level: 2 })).toHaveText('Stores');
});

test('from bench to bench, and back, go element, viewer, record and panes', async ({ browser }) => {
  const page = await studio(
    browser,
    'tamsin@larkfield.example',
    `element=p_item_maker&viewer=role:curator&address=items/${MARKED.id}`,
  );
  await page.getByRole('link', { name: 'Look', exact: true }).click();
  const pane = page.getByRole('region', { name: /^Pane A, Curator/ });
  await expect(pane.getByLabel('Address in the application')).toHaveValue(`/items/${MARKED.id}`);
  await expect(page.getByRole('region', { name: 'Why' })).toContainText('Maker');
  await page.getByRole('button', { name: 'Pane', exact: true }).click();
  await expect(page.getByRole('region', { name: /^Pane B/ })).toBeVisible();
  await page.getByRole('link', { name: /^Release/ }).click();
  await expect(page.getByRole('heading', { name: /^(Changes in release|No unreleased)/ })).toBeVisible();
  await page.getByRole('navigation', { name: 'Benches' }).getByRole('link', { name: 'Gates' }).click();
  await expect(panel(page).getByRole('heading', { level: 2 })).toHaveText('Maker');
  await expect(page.getByLabel('Address in the application')).toHaveValue(`/items/${MARKED.id}`);
  await outline(page).press('ArrowDown');
  await expect(panel(page).getByRole('heading', { level: 2 })).not.toHaveText('Maker');
  await page.goBack();
  await page.goBack();
  await expect(page.getByRole('region', { name: /^Pane B/ })).toBeVisible();
  await expect(page.getByRole('region', { name: /^Pane A, Curator/ })).toBeVisible();
});

test('a condition is taken as true while one looks, and that is said', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_piece&viewer=role:lender');
  await expect(canvas(page)).toContainText('You do not have access to this page');
  await panel(page)
    .getByLabel(/^Preview setting for the condition/)
    .selectOption('true');
  await expect(page.getByText(/is treated as true/)).toBeVisible();
  await page.getByRole('button', { name: 'Reset' }).click();
  await expect(page.getByText(/is treated as true/)).toHaveCount(0);
});

test('a role is given by a choice and a button, in a unit and for a time; what counts at once asks', async ({
  browser,
}) => {
  const page = await (await browser.newContext()).newPage();
  await page.goto(`${LIVE}/sign-in`);
  await fillSignIn(page, emailOf('Delia Marsh'));
  await page.waitForURL((url) => !url.pathname.endsWith('sign-in'));
  await page.goto(`${LIVE}/people`);
  await page.getByRole('searchbox').fill('Nell Sparrow');
  await page.getByRole('button', { name: 'Edit Nell Sparrow' }).click();
  const window = page.getByRole('dialog');
  const role = window.getByLabel('Role to assign');
  await role.focus();
  // An arrow key chooses, and gives nothing.
  await page.keyboard.press('ArrowDown');
  const held = async (): Promise<number> => {
    const rows = await query(
      `select role_id from assignments a join people p on p.id = a.person_id where p.name = 'Nell Sparrow'`,
    );
    return rows.length;
  };
  const before = await held();
  await role.selectOption({ label: 'Assistant' });
  await window.getByLabel('Unit').selectOption({ label: 'Mill Annexe' });
  await window.getByRole('textbox', { name: 'until' }).fill('1 March 2031');
  expect(await held()).toBe(before);
  await window.getByRole('button', { name: 'Assign', exact: true }).click();
  await expect(window.getByText(/^Assistant in Mill Annexe, until 1 Mar 2031/)).toBeVisible();
  await window.getByRole('button', { name: 'Remove Assistant in Mill Annexe' }).click();
  const asked = page.getByRole('alertdialog');
  await expect(asked).toContainText('Remove the role Assistant in Mill Annexe from Nell Sparrow?');
  await asked.getByRole('button', { name: 'Cancel' }).click();
  await expect(window.getByText(/^Assistant in Mill Annexe/)).toBeVisible();
  await window.getByRole('button', { name: 'Remove Assistant in Mill Annexe' }).click();
  await asked.getByRole('button', { name: 'Remove role' }).click();
  await expect(window.getByText(/^Assistant in Mill Annexe/)).toHaveCount(0);
  await window.getByRole('button', { name: 'Reset password…' }).click();
  await expect(asked).toContainText('Reset the password of Nell Sparrow?');
  await asked.getByRole('button', { name: 'Cancel' }).click();
});

test('many at once: only what may be changed on the chosen rows, and no row of an earlier search', async ({
  browser,
}) => {
  const page = await (await browser.newContext()).newPage();
  await page.goto(`${LIVE}/sign-in`);
  await fillSignIn(page, emailOf('Agnes Holloway'));
  await page.waitForURL((url) => !url.pathname.endsWith('sign-in'));
  await page.goto(`${LIVE}/items`);
  const boxes = page.getByRole('checkbox', { name: /^Select (?!all)/ });
  const many = page.getByRole('button', { name: /^Bulk edit/ });
  await boxes.first().check();
  await expect(many).toContainText('(1)');
  await page.getByRole('searchbox').first().fill('MARK');
  await page.keyboard.press('Enter');
  await expect(page.getByText('MARK-title')).toBeVisible();
  await expect(many).not.toContainText('(1)');
});

test('1024 pixels wide, nothing runs over the edge', async ({ browser }) => {
  const page = await studio(browser, 'tamsin@larkfield.example', 'element=p_item_value&viewer=role:lender');
  await page.setViewportSize({ width: 1024, height: 768 });
  for (const bench of ['gates', 'look', 'people', 'release']) {
    await page.goto(`/studio/larkfield/${bench}`);
    await expect(page.getByRole('navigation', { name: 'Benches' })).toBeVisible();
    const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect([bench, over <= 0]).toEqual([bench, true]);
    await expect(page.getByRole('button', { name: 'Sign out' })).toBeInViewport();
  }
});
