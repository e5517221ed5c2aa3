import { createHash } from 'node:crypto';
import { expect, type Browser, type Page } from '@playwright/test';
import { query, studio, test, undoButton } from './setting';

test.describe.configure({ mode: 'serial' });

const prove = '/studio/larkfield/prove';
const findings = (page: Page) => page.getByRole('region', { name: 'Findings' });
const detail = (page: Page) => page.getByRole('complementary', { name: 'Details' });
const badge = (page: Page) => page.getByRole('link', { name: /^Prove/ });

async function atProve(browser: Browser, query = ''): Promise<Page> {
  const page = await studio(browser);
  await page.goto(`${prove}${query}`);
  await expect(page.getByText('Checking the newest changes')).toHaveCount(0);
  return page;
}

test('what is probably wrong is found, told, and mended by an edit whose effect is told before', async ({
  browser,
}) => {
  const page = await atProve(browser);
  await expect(badge(page)).toContainText('10');
  await expect(findings(page).locator('[data-finding]')).toHaveCount(10);
  await findings(page)
    .getByRole('button', { name: /^Hidden in one place but shown in another/ })
    .click();
  await expect(detail(page)).toContainText('The column Fee on Loan list is hidden from Assistant');
  await expect(detail(page)).toContainText(/people lose/);
  await expect(detail(page).getByRole('link', { name: /View as two of them/ })).toBeVisible();
  await detail(page).getByRole('button', { name: 'Apply fix' }).first().click();
  await expect(findings(page)).not.toContainText('Hidden in one place but shown in another');
  await expect(badge(page)).toContainText('9');
  await undoButton(page).click();
  await expect(findings(page)).toContainText('Hidden in one place but shown in another');
  // Its place leads to where it is mended.
  await findings(page).getByRole('link', { name: 'Items' }).click();
  await expect(page).toHaveURL(/gates\?element=item/);
});

test('what is meant so is set aside with a reason, until what it rests on changes', async ({ browser }) => {
  const page = await atProve(browser);
  await findings(page)
    .getByRole('button', { name: /^People can give themselves access/ })
    .click();
  await detail(page).getByRole('button', { name: 'Dismiss…' }).click();
  await page.getByRole('dialog').getByLabel('Reason').fill('They are trained for it.');
  await page.getByRole('dialog').getByRole('button', { name: 'Dismiss finding' }).click();
  await expect(findings(page).locator('[data-finding]')).toHaveCount(9);
  await findings(page).getByRole('button', { name: 'Show dismissed' }).click();
  await expect(findings(page)).toContainText('Dismissed: They are trained for it.');
  await page.reload();
  await expect(findings(page).locator('[data-finding]')).toHaveCount(9);
  // Another line at its gate, and it is there again.
  await page.goto('/studio/larkfield/gates?element=p_item_store&viewer=role:curator&form=grid');
  await expect(page.getByRole('treegrid')).toBeVisible();
  await page.getByRole('treegrid').focus();
  await page.keyboard.press('1');
  await expect(page.getByText(/^Saved/)).toBeVisible();
  await page.goto(prove);
  await expect(findings(page)).toContainText('People can give themselves access');
  await undoButton(page).click();
  await expect(findings(page)).not.toContainText('People can give themselves access');
});

test('what is expected from a cell is told when an edit breaks it, and a release has to say why', async ({
  browser,
}) => {
  const page = await studio(browser);
  await page.goto('/studio/larkfield/gates?element=s_out&viewer=role:keeper&form=grid');
  await page.getByRole('treegrid').focus();
  await page.keyboard.press('e');
  await page.getByLabel('Name').fill('Keepers and what is out');
  await page.getByLabel('Reason').fill('They have no part in it.');
  await page.getByRole('button', { name: 'Add expectation', exact: true }).click();
  await expect(page.getByText('1 expectation added.', { exact: false }).first()).toBeVisible();
  await page.getByRole('treegrid').focus();
  await page.keyboard.press('1');
  await expect(
    page.getByText('Your change breaks an expectation: “Keepers and what is out”').first(),
  ).toBeVisible();
  await page.goto(`${prove}?part=expected`);
  await expect(page.getByRole('region', { name: 'Expectations' })).toContainText('1 broken');
  await expect(detail(page)).toContainText('Broken in an edit by Tamsin Reed');
  await expect(detail(page)).toContainText('They have no part in it.');
  await page.goto('/studio/larkfield/release');
  await expect(page.getByRole('heading', { name: 'Breaks an expectation' })).toBeVisible();
  await page.getByRole('button', { name: /^Release \d+…/ }).click();
  const reason = page.getByRole('dialog').getByLabel(/Reason/);
  await page.getByRole('dialog').getByRole('button', { name: 'Release', exact: true }).click();
  await expect(reason).toBeFocused();
  await reason.fill('They carry pieces now.');
  await page.getByRole('dialog').getByRole('button', { name: 'Release', exact: true }).click();
  await expect(page.getByText(/^Release \d+ is live/).first()).toBeVisible();
  // Where it may not be at all, it is refused.
  await page.goto(`${prove}?part=expected`);
  const kept = page.waitForResponse((one) => one.request().method() === 'PATCH');
  await page.getByRole('checkbox', { name: /Allow a release to break an expectation/ }).click();
  expect((await kept).ok()).toBe(true);
  await page.goto('/studio/larkfield/gates?element=s_out&viewer=role:keeper&form=grid');
  await page.getByRole('treegrid').focus();
  await page.keyboard.press('2');
  await expect(page.getByText(/^Saved, 1 change/)).toBeVisible();
  await page.goto('/studio/larkfield/release');
  await expect(page.getByText('The draft cannot be released like this')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Release \d+…/ })).toBeDisabled();
  // From now on it is meant so.
  await page.goto(`${prove}?part=expected`);
  await detail(page).getByRole('button', { name: 'Update to current level' }).click();
  await expect(page.getByRole('region', { name: 'Expectations' })).not.toContainText('broken');
});

test('expectations go out and come in as CSV, all or none', async ({ browser }) => {
  const page = await atProve(browser, '?part=expected');
  const file = (text: string) => ({ name: 'expected.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  const input = page.getByLabel('CSV file with expectations');
  await input.setInputFiles(
    file('viewer,element,expect\nrole:lender,s_loans,none\nrole:nobody,s_loans,none\n'),
  );
  await expect(page.getByRole('alert').filter({ hasText: 'Nothing' })).toContainText('role:nobody');
  await input.setInputFiles(file('viewer,element,expect,name\nrole:lender,s_loans,none,From outside\n'));
  await expect(page.getByRole('region', { name: 'Expectations' })).toContainText('From outside');
  const answer = await page.request.get('/studio/api/applications/larkfield/expectations/csv');
  expect(await answer.text()).toContain('role:lender,s_loans,,,none,From outside,');
});

test('a reviewer sees all of it and changes nothing', async ({ browser }) => {
  const page = await studio(browser, 'vera@larkfield.example');
  await page.goto(prove);
  await expect(findings(page).locator('[data-finding]').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Apply fix' })).toHaveCount(0);
  const refused = await page.request.put('/studio/api/applications/larkfield/proof/aside', {
    data: { key: 'x', reason: 'y' },
    headers: { origin: new URL(page.url()).origin },
  });
  expect(refused.status()).toBe(403);
});

test('a sweep asks the server itself, shows how far it is, and can be stopped; what it found is kept', async ({
  browser,
}) => {
  const page = await atProve(browser, '?part=sweep');
  const sweep = page.getByRole('region', { name: 'Sweep' });
  await sweep.getByRole('button', { name: 'Sweep draft' }).click();
  await expect(sweep.getByRole('status')).toContainText(/Sending requests as viewer (?!1 of)\d+ of \d+/, {
    timeout: 120_000,
  });
  await sweep.getByRole('button', { name: 'Stop' }).click();
  await expect(sweep.getByRole('button', { name: 'Sweep draft' })).toBeVisible();
  await expect(sweep).toContainText('No mismatches so far.');
  await expect(detail(page)).toContainText(/0 mismatches in [\d,]{3,} requests/);
  // Nothing of the copy is left.
  await expect
    .poll(async () => (await query('select 1 from applications where sweep_of is not null')).length)
    .toBe(0);
  // Nobody comes to a copy by its address.
  expect((await page.request.get('/live/sweep-0123456789abcdef')).status()).toBe(404);
});

test('a reviewer signs off; what differs since is told with who did it, and printed with its hash', async ({
  browser,
}) => {
  const reviewer = await studio(browser, 'vera@larkfield.example');
  await reviewer.goto(`${prove}?part=signed`);
  const signed = (page: Page) => page.getByRole('region', { name: 'Sign-offs' });
  await signed(reviewer).getByRole('button', { name: 'Sign off…' }).click();
  await reviewer.getByRole('dialog').getByLabel('Title').fill('The review in March');
  await reviewer.getByRole('dialog').getByRole('button', { name: 'Sign off', exact: true }).click();
  await expect(signed(reviewer)).toContainText('The review in March');
  await expect(detail(reviewer)).toContainText('No differences. Access, records');
  const page = await studio(browser);
  await page.goto('/studio/larkfield/gates?element=s_evenings&viewer=role:auditor&form=grid');
  await page.getByRole('treegrid').focus();
  await page.keyboard.press('1');
  await expect(page.getByText(/^Saved/)).toBeVisible();
  // Owners say when it is too old; home tells it then, too.
  await page.goto(`${prove}?part=signed`);
  const days = page.getByLabel('Days until a reminder is shown');
  await days.fill('90');
  // A page that is left before its answer may never have asked.
  const reminded = page.waitForResponse((one) => one.request().method() === 'PATCH');
  await days.blur();
  expect((await reminded).ok()).toBe(true);
  await query(`update sign_offs set at = now() - interval '120 days'`);
  await page.goto('/studio');
  await page.getByRole('link', { name: 'Last sign-off 120 days ago (overdue)' }).click();
  await expect(page.getByRole('button', { name: /signed off by Vera Lunt/ })).toContainText(
    '120 days ago (due every 90 days)',
  );
  await expect(detail(page)).toContainText(/[1-9]\d* gained, 0 lost/);
  // Under the edit that did it, who gained what.
  await expect(detail(page).locator('summary', { hasText: /^Tamsin Reed, .*: Evenings\./ })).toBeVisible();
  await expect(detail(page)).toContainText(/Gained: Evenings.*Closed → .*Read-only.*Auditor/);
  await detail(page).getByLabel('Grouped by').selectOption('viewer');
  await detail(page)
    .locator('summary', { hasText: /^Auditor/ })
    .click();
  await expect(detail(page)).toContainText('Gained: Evenings');
  await expect(detail(page)).toContainText(/Tamsin Reed, .*: Evenings\./);
  // What no edit did is told under who gave a person other roles.
  const [wren] = await query<{ id: string }>(
    `select id from people where application_id = 'larkfield' and name = 'Wren Tolliver'`,
  );
  const changed = await page.request.patch(`/studio/api/applications/larkfield/people/${wren?.id}`, {
    data: { give: [{ role: 'keeper' }] },
  });
  expect(changed.ok()).toBe(true);
  await page.reload();
  const given = detail(page).locator('details', {
    hasText: /Wren Tolliver was assigned Keeper of accounts\./,
  });
  await expect(given.locator('summary')).toContainText(/^Tamsin Reed, /);
  await expect(given).toContainText('Gained: People (in the menu)');
  const [href = '', file = ''] = await Promise.all(
    ['Print', 'Export'].map(async (name) => detail(page).getByRole('link', { name }).getAttribute('href')),
  ).then((all) => all.map((one) => one ?? ''));
  const hash = createHash('sha256')
    .update(await (await page.request.get(file)).body())
    .digest('hex');
  await page.goto(href);
  await expect(page.getByRole('main')).toContainText(`“The review in March”`);
  await expect(page.getByRole('main')).toContainText(hash);
  await expect(page.getByRole('main')).toContainText('Wren Tolliver: Volunteer');
});
