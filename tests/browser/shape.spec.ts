import { expect, type Locator, type Page } from '@playwright/test';
import { query, studio, test } from './setting';

test.describe.configure({ mode: 'serial' });

let page: Page;
const panel = (): Locator => page.getByRole('region', { name: 'Shape' });
const canvas = (): Locator => page.getByRole('region', { name: 'Canvas' });
const inOutline = (name: RegExp): Locator => page.getByRole('treeitem', { name });
const parts = (): Promise<string[]> =>
  canvas()
    .locator('[data-element=n_custody] > div > [data-element]')
    .evaluateAll((all) => all.map((one) => one.getAttribute('data-element') ?? ''));

async function at(element: string): Promise<void> {
  await page.goto(`/studio/larkfield/shape?element=${element}&viewer=role:registrar`);
  await expect(page.getByText(/^Saved/)).toBeVisible();
  // What is chosen before the bench works is set back by it.
  await page.waitForFunction(() =>
    Object.keys(document.querySelector('section[aria-label="Shape"]') ?? {}).some((key) =>
      key.startsWith('__reactProps'),
    ),
  );
}
async function add(words: string, exactly: string): Promise<void> {
  await panel().getByRole('button', { name: 'Add here' }).click();
  await page.getByPlaceholder('Search what can be added here').fill(words);
  await page.getByRole('option', { name: exactly }).first().click();
}
async function name(text: string): Promise<void> {
  await panel().getByLabel('Name', { exact: true }).fill(text);
  await page.keyboard.press('Enter');
}

test.beforeAll(async ({ browser }) => {
  page = await studio(browser);
});

test('a section is added and named, a field and a new one are put in it, and who gets them is told', async () => {
  await at('n_custody');
  await add('section', 'Section');
  await expect(panel().getByRole('heading', { name: 'New section' })).toBeVisible();
  // Its name is what is written next; as long as it is as it was, the keys take back what was added.
  await expect(panel().getByLabel('Name', { exact: true })).toBeFocused();
  await page.keyboard.press('Control+z');
  await expect(inOutline(/^New section/)).toBeHidden();
  await at('n_custody');
  await add('section', 'Section');
  await name('Keeping');
  await expect(inOutline(/^Keeping/)).toBeVisible();
  await add('on loan', 'On loan');
  await expect(panel()).toContainText('Field on Item details, in Keeping');
  await expect(canvas().getByText('On loan', { exact: true }).first()).toBeVisible();
  await expect(panel().getByText('Result')).toBeVisible();
  await add('new field', 'New field of Item');
  await expect(panel().getByRole('heading', { name: 'New field' })).toBeVisible();
  await expect(canvas().getByText('New field', { exact: true }).first()).toBeVisible();
  await expect(page.getByText(/^Saved/)).toBeVisible();
});

test('the new field becomes a choice with three options, in the data', async () => {
  const added = (): Promise<string | undefined> =>
    query<{ id: string }>(
      `select edit->'edits'->0->'node'->>'id' as id from edits
       where edit->>'do' = 'together' order by revision desc limit 1`,
    ).then(([row]) => row?.id);
  await expect.poll(added).toBeTruthy();
  await at((await added()) ?? '');
  await expect(panel()).toContainText('Data field of Items');
  await name('Light');
  await panel().getByLabel('Type').selectOption({ label: 'Choice' });
  await panel().getByRole('button', { name: 'Add option' }).click();
  await panel().getByRole('button', { name: 'Add option' }).click();
  await panel().getByRole('textbox', { name: 'Option 3' }).fill('Dark');
  await page.keyboard.press('Enter');
  await panel().getByRole('button', { name: 'Move Dark up' }).click();
  await expect(panel().getByRole('textbox', { name: 'Option 2' })).toHaveValue('Dark');
  await expect(page.getByRole('region', { name: 'Data' }).getByRole('row', { name: /Light/ })).toContainText(
    'one of 3',
  );
});

test('parts are moved by the keyboard and to another section, and a move back is one key', async () => {
  await at('p_item_value');
  await expect.poll(parts).toContain('p_item_value');
  const before = await parts();
  expect(before[0]).toBe('p_item_value');
  await page.getByRole('tree').focus();
  await page.keyboard.press('Alt+ArrowDown');
  await expect.poll(parts).toEqual([before[1], before[0], ...before.slice(2)]);
  await panel().getByLabel('Move to').selectOption({ label: 'Description' });
  await expect(panel()).toContainText('in Description');
  await expect.poll(parts).toEqual(before.slice(1));
  // Also from the list that the section was just chosen from.
  const moveTo = panel().getByLabel('Move to');
  await moveTo.focus();
  await expect(moveTo).toBeFocused();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(parts).toEqual(before);
});

test('the canvas follows the draft also where something is written in its form', async () => {
  await at('p_item_value');
  await expect.poll(parts).toContain('p_item_value');
  const [first, second, ...rest] = await parts();
  await canvas().getByRole('switch', { name: 'Interactive' }).click();
  const asked = page.waitForResponse(/before-saving/);
  await canvas().getByLabel('On display').click();
  await asked;
  await page.getByRole('tree').focus();
  await page.keyboard.press('Alt+ArrowDown');
  await expect.poll(parts).toEqual([second, first, ...rest]);
  await page.keyboard.press('Control+z');
  await expect.poll(parts).toEqual([first, second, ...rest]);
});

test('parts are dragged and carried by the arrows on the canvas, and a seam takes what is chosen for it', async () => {
  await at('p_item_value');
  await expect.poll(parts).toContain('p_item_value');
  const before = await parts();
  const drag = async (from: Locator, to: Locator): Promise<void> => {
    const [a, b] = [await from.boundingBox(), await to.boundingBox()];
    if (!a || !b) throw new Error('Both are drawn');
    await page.mouse.move(a.x + 20, a.y + 8);
    await page.mouse.down();
    await page.mouse.move(a.x + 30, a.y + 20, { steps: 4 });
    await page.mouse.move(b.x + b.width / 2, b.y + b.height / 2, { steps: 8 });
    await page.mouse.up();
  };
  const seam = (about: string): Locator =>
    canvas().locator('.seam', { has: page.getByLabel(about, { exact: true }) });
  await expect(canvas().getByLabel('Add after Store and shelf')).toBeAttached();
  await drag(canvas().locator('[data-element=p_item_value]'), seam('Add after Store and shelf'));
  await expect.poll(async () => (await parts()).indexOf('p_item_value')).toBe(3);
  await page.keyboard.press('Control+z');
  await expect.poll(parts).toEqual(before);
  // By the keyboard: taken by its grip, carried from place to place, and put down.
  await canvas().getByRole('button', { name: 'Move Insurance value' }).focus();
  await page.keyboard.press('Space');
  const said = page.getByText(/^Insurance value would be placed/);
  await expect(said).toBeAttached();
  const first = await said.textContent();
  await page.keyboard.press('ArrowDown');
  await expect.poll(() => said.textContent()).not.toBe(first);
  await page.keyboard.press('Space');
  await expect.poll(parts).not.toEqual(before);
  await page.keyboard.press('Control+z');
  await expect.poll(parts).toEqual(before);
  // A seam offers what can come right there: here the reports that belong to the piece.
  await canvas().locator('[data-element=p_item_value] label').click();
  await canvas().getByRole('button', { name: 'Add after Insurance value' }).click();
  await page.getByPlaceholder('Search what can be added here').fill('reports');
  await page.getByRole('option', { name: /those whose Item is the Item on the screen/ }).click();
  await expect(panel().getByRole('heading', { name: 'Condition reports' })).toBeVisible();
  await expect(panel().getByLabel('Records to list')).toHaveValue('report_item');
  await expect.poll(async () => (await parts()).length).toBe(before.length + 1);
  await page.keyboard.press('Control+z');
  await expect.poll(parts).toEqual(before);
});

test('rows of the outline are dragged: a screen to another area, a menu item under another', async () => {
  const drag = async (from: RegExp, to: RegExp, down: number): Promise<void> => {
    const [a, b] = [await inOutline(from).boundingBox(), await inOutline(to).boundingBox()];
    if (!a || !b) throw new Error('Both are drawn');
    await page.mouse.move(a.x + 60, a.y + a.height / 2);
    await page.mouse.down();
    await page.mouse.move(a.x + 66, a.y + a.height / 2 + 8, { steps: 3 });
    await page.mouse.move(b.x + 60, b.y + b.height * down, { steps: 8 });
    await page.mouse.up();
  };
  await at('s_new_item');
  await drag(/^New item/, /^Loans/, 0.5);
  await expect(panel()).toContainText('in Loans');
  await page.keyboard.press('Control+z');
  await expect(panel()).toContainText('in Items');
  await panel().press('Escape');
  await page.getByRole('radio', { name: 'Menu' }).click();
  await expect(panel()).toContainText('Menu item');
  await drag(/^Stores/, /^Reports/, 0.5);
  await expect(panel()).toContainText('Menu item in Reports');
  await page.keyboard.press('Control+z');
  await expect(panel()).not.toContainText('Menu item in Reports');
});

test('a screen with an address of its own, a menu item under another, and a second face', async () => {
  await at('area_items');
  await add('screen', 'Screen without a record');
  await name('Shelf walk');
  await expect(panel().getByLabel('Address', { exact: true })).toHaveValue('shelf-walk');
  await panel().getByLabel('Address', { exact: true }).fill('shelves');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Address in the application')).toHaveValue('/shelves');
  // Nobody gets it until somebody is given it.
  await expect(panel().getByText('0 of 62 people have access')).toBeVisible();
  await panel().getByLabel('Address', { exact: true }).fill('loans');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/has the same address \(loans\)/).first()).toBeVisible();
  await add('face', 'Face');
  await expect(panel().getByRole('heading', { name: 'New face' })).toBeVisible();
  await at('m_reports');
  await panel().getByRole('button', { name: 'Add here' }).click();
  await page.getByPlaceholder('Search what can be added here').fill('Shelf walk');
  await page.getByRole('option', { name: 'Shelf walk' }).last().click();
  await expect(panel()).toContainText('Menu item in Reports');
});

test('an area has a menu of its own, drawn around its screens and no others', async () => {
  await at('menu');
  await add('Menu of', 'Menu of Stores');
  await expect(panel()).toContainText('Menu of Stores');
  await expect(page.getByLabel('Address in the application')).toHaveValue('/stores');
  const menu = canvas().getByRole('navigation', { name: 'Application menu' });
  await expect(menu.locator('[data-element]')).toHaveText(['Stores']);
  await panel().getByLabel('Title shown above the menu').fill('Down in the stores');
  await page.keyboard.press('Enter');
  await expect(canvas().getByText('Down in the stores')).toBeVisible();
  await add('People', 'People');
  await expect(menu.locator('[data-element]')).toHaveText(['Stores', 'People']);
  await at('s_loans');
  await expect(menu.getByRole('link', { name: 'Loans' })).toBeVisible();
  await expect(canvas().getByText('Down in the stores')).toHaveCount(0);
});

test('a button does something else, a list shows less, an action sets something', async () => {
  await at('b_request_loan');
  await panel()
    .getByLabel('Effect')
    .selectOption({ label: 'Release from store: runs the action on the record' });
  const last = (): Promise<string | undefined> =>
    query<{ id: string }>(`select edit->>'id' as id from edits order by revision desc limit 1`).then(
      ([row]) => row?.id,
    );
  await expect.poll(last).toBe('b_request_loan');
  await page.reload();
  await expect(panel().getByLabel('Effect')).toHaveValue('action a_item_release');
  await at('l_catalogue');
  await expect(panel()).toContainText('record.on_display');
  await panel().getByRole('button', { name: 'Remove filter' }).click();
  await expect(panel()).toContainText('All Items');
  await panel().getByRole('button', { name: 'Add filter…' }).click();
  await expect(page.getByRole('dialog')).toContainText('On display shows records where');
  await page.keyboard.press('Escape');
  await at('item');
  await add('action', 'Action');
  await expect(panel().getByRole('heading', { name: 'New action' })).toBeVisible();
  await expect(panel().getByLabel('Action name')).toHaveValue('New action');
  // A field that is needed is set at once to what it becomes.
  await panel().getByLabel('Set another field').selectOption({ label: 'Branch' });
  await panel().getByLabel('New value of Branch').selectOption({ label: 'Main Hall' });
  await expect(panel().getByText('Sets Branch to Main Hall')).toBeVisible();
});

test('a chart of a list is added, counts by another field, and goes with its list', async () => {
  await at('l_catalogue');
  await add('chart', 'Chart of On display');
  await expect(panel()).toContainText('The chart counts the records that On display shows');
  const chart = canvas().locator('figure');
  await expect(chart.getByText('On display by Condition').first()).toBeVisible();
  await panel().getByLabel('Group by').selectOption({ label: 'On display' });
  await panel().getByLabel('Chart type').selectOption({ label: 'Line' });
  // The same as a table, folded: clicks on the canvas select.
  await expect(chart.locator('td', { hasText: /^Yes$/ })).toBeAttached();
  await at('l_catalogue');
  await page.getByRole('tree').focus();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('alertdialog')).toContainText(/chart on Catalogue.* will be deleted too/);
  await page.getByRole('button', { name: 'Cancel' }).click();
});

test('what goes with a field is told before it goes, and one undo gives it all back', async () => {
  await at('item_condition');
  await panel().getByRole('button', { name: 'Delete…' }).click();
  const asked = page.getByRole('alertdialog');
  await expect(asked).toContainText('Condition (column on Item list) will be deleted too.');
  await expect(asked).toContainText('Fragile pieces (list on Fragile pieces)');
  await asked.getByRole('button', { name: 'Delete' }).click();
  await expect(
    page.getByRole('region', { name: 'Data' }).getByRole('row', { name: /^Condition/ }),
  ).toBeHidden();
  await page.keyboard.press('Control+z');
  await expect(
    page.getByRole('region', { name: 'Data' }).getByRole('row', { name: /^Condition/ }),
  ).toBeVisible();
  await at('item_title');
  await panel().getByRole('button', { name: 'Delete…' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('Accession no.');
  await page.getByRole('button', { name: 'Cancel' }).click();
});

test('two builders at once: a renaming and a move of the same thing both hold', async ({ browser }) => {
  await at('n_custody');
  const other = await studio(browser, 'jonah@larkfield.example');
  await other.goto('/studio/larkfield/shape?element=n_custody&viewer=role:registrar');
  await other
    .getByRole('region', { name: 'Shape' })
    .getByLabel('Name', { exact: true })
    .fill('Custody and care');
  await other.keyboard.press('Enter');
  await panel().getByRole('button', { name: 'Up', exact: true }).click();
  await expect(panel().getByRole('heading', { name: 'Custody and care' })).toBeVisible();
  await page.reload();
  await expect(panel().getByLabel('Name', { exact: true })).toHaveValue('Custody and care');
  await expect(panel().getByRole('button', { name: 'Up', exact: true })).toBeDisabled();
});

test('all of it is undone, and is as it was after a reload', async () => {
  for (let n = 0; n < 40; n++) {
    const undo = page.getByRole('group', { name: 'Undo and redo' }).getByRole('button', { name: 'Undo' });
    if (await undo.isDisabled()) break;
    await undo.click();
    await expect(page.getByText(/^Saved/)).toBeVisible();
  }
  await at('n_custody');
  await expect(inOutline(/^Keeping/)).toBeHidden();
  await expect(panel().getByRole('button', { name: 'Up', exact: true })).toBeEnabled();
  // What the other builder did is theirs to undo.
  await expect(panel().getByLabel('Name', { exact: true })).toHaveValue('Custody and care');
});

test('a reviewer sees all of it, and changes nothing', async ({ browser }) => {
  const reviewer = await studio(browser, 'vera@larkfield.example');
  await reviewer.goto('/studio/larkfield/shape?element=n_custody');
  const seen = reviewer.getByRole('region', { name: 'Shape' });
  await expect(seen.getByLabel('Name', { exact: true })).toBeDisabled();
  await expect(seen.getByRole('button', { name: 'Add here' })).toBeHidden();
  await expect(seen.getByRole('button', { name: 'Delete…' })).toBeHidden();
});
