import { readFileSync } from 'node:fs';
import { expect, request as newRequest, type APIRequestContext } from '@playwright/test';
import {
  emailOf,
  fillSignIn,
  LIVE,
  query,
  RECORDS,
  signInOverHttp,
  studio,
  undoButton,
  test,
} from './setting';

const PASSWORD = process.env['DEMO_PASSWORD'] ?? '';
const open: APIRequestContext[] = [];

/** A session of its own over plain HTTP; signed out without a name. */
async function session(name?: string): Promise<APIRequestContext> {
  const context = await newRequest.newContext({
    baseURL: process.env['BASE_URL'] ?? '',
    extraHTTPHeaders: { Origin: process.env['BASE_URL'] ?? '' },
  });
  open.push(context);
  if (name) await signInOverHttp(context, name);
  return context;
}

test.afterAll(async () => {
  for (const one of open) await one.dispose();
});

interface Listed {
  readonly total: number;
  readonly records: readonly {
    readonly id: string;
    readonly version: string;
    readonly values: Record<string, unknown>;
  }[];
}

const list = async (as: APIRequestContext, entity: string, more = ''): Promise<Listed> =>
  (await (await as.get(`${RECORDS}/${entity}?size=100${more}`)).json()) as Listed;

test.describe('who and which records', () => {
  test('a lender has only their own pieces, in lists, the API and by address', async ({ page }) => {
    const harriet = await session('Harriet Arkwright');
    const own = await list(harriet, 'item');
    expect(own.total).toBeGreaterThan(0);
    // Her own, and what the catalogue shows to everybody.
    const [others] = await query<{ count: string }>(
      `select count(*) from records where kind = 'live' and entity = 'item' and id = any($1)
        and data ->> 'item_lender_email' is distinct from $2 and data ->> 'item_shown' <> 'true'`,
      [own.records.map(({ id }) => id), emailOf('Harriet Arkwright')],
    );
    expect(others?.count).toBe('0');
    const [other] = await query<{ id: string }>(
      `select id from records where kind = 'live' and entity = 'item' and data ->> 'item_shown' = 'false'
        and data ->> 'item_lender_email' is distinct from $1 limit 1`,
      [emailOf('Harriet Arkwright')],
    );
    expect((await harriet.get(`${RECORDS}/item/${other?.id}`)).status()).toBe(404);
    await page.goto(`${LIVE}/sign-in`);
    await fillSignIn(page, emailOf('Harriet Arkwright'));
    await expect(page).toHaveURL(`${LIVE}/pieces`);
    await page.getByRole('link', { name: 'Blue ewer' }).first().click();
    await expect(page.getByRole('heading', { name: 'Blue ewer' })).toBeVisible();
  });

  test('a role held in one unit counts for that unit’s records only', async () => {
    const rhoda = await session('Rhoda Fenn');
    const found = await list(rhoda, 'loan');
    expect(found.total).toBeGreaterThan(0);
    expect(new Set(found.records.map(({ values }) => values['loan_branch']))).toEqual(
      new Set(['mill-annexe']),
    );
    const [hall] = await query<{ id: string }>(
      `select id from records where kind = 'live' and entity = 'loan' and data ->> 'loan_branch' = 'main-hall' limit 1`,
    );
    expect((await rhoda.get(`${RECORDS}/loan/${hall?.id}`)).status()).toBe(404);
    // Nor can she move one of hers to where she could not have put it.
    const [mine] = found.records;
    const moved = await rhoda.patch(`${RECORDS}/loan/${mine?.id}`, {
      headers: { 'If-Match': `"${mine?.version}"` },
      data: { values: { loan_branch: 'main-hall' } },
    });
    expect([403, 422]).toContain(moved.status());
  });

  test('a filter tells nothing of what is hidden, also under not and is empty', async () => {
    const marcus = await session('Marcus Bell');
    const ask = async (filter: string) => marcus.get(`${RECORDS}/loan?filter=${encodeURIComponent(filter)}`);
    // Who approved is closed to him on every loan: it has no name in the language.
    const [hidden, missing] = [
      await ask('record.approved_by is not empty'),
      await ask('record.approved_xy is not empty'),
    ];
    expect([hidden.status(), missing.status()]).toEqual([422, 422]);
    const told = async (answer: typeof hidden, name: string) => (await answer.text()).replaceAll(name, 'X');
    expect(await told(hidden, 'approved_by')).toBe(await told(missing, 'approved_xy'));
    // On a record where a field is closed it can be told neither way.
    const visitor = await session();
    const count = async (filter: string): Promise<number> =>
      ((await (await visitor.get(`${RECORDS}/item?filter=${encodeURIComponent(filter)}`)).json()) as Listed)
        .total;
    const whole = (await list(visitor, 'item')).total;
    expect((await count('record.title contains "e"')) + (await count('not record.title contains "e"'))).toBe(
      whole,
    );
    expect(
      (
        await visitor.get(`${RECORDS}/item?filter=${encodeURIComponent('record.store_and_shelf is empty')}`)
      ).status(),
    ).toBe(422);
  });

  test('an export has the columns and cells of its viewer, and no cell is a formula', async () => {
    const priya = await session('Priya Raman');
    const [item] = (await list(priya, 'item', '&q=Blue ewer')).records;
    await query(
      `update records set data = data || '{"item_maker": "=1+1"}' where kind = 'live' and id = $1`,
      [item?.id],
    );
    const file = await priya.get(`${LIVE}/api/lists/l_items/export?l_items.q=Blue%20ewer`);
    expect(file.headers()['content-type']).toContain('text/csv');
    const text = await file.text();
    expect(text).toMatch(/^Accession no\.,Title,Maker/);
    expect(text).toContain("'=1+1");
    const marcus = await session('Marcus Bell');
    expect((await marcus.get(`${LIVE}/api/lists/l_items/export`)).status()).toBe(404);
    expect((await marcus.get(`${LIVE}/api/lists/nothing/export`)).status()).toBe(404);
  });

  test('a bulk change is all or nothing, record by record', async () => {
    const priya = await session('Priya Raman');
    const [a, b] = (await list(priya, 'item', '&sort=item_accession')).records;
    const change = (records: unknown, values: unknown) =>
      priya.post(`${LIVE}/api/lists/l_items/bulk`, { data: { records, values } });
    const both = [a, b].map((one) => ({ id: one?.id, version: one?.version }));
    const stale = await change([both[0], { ...both[1], version: 'older' }], { item_notes: 'Both' });
    expect(stale.status()).toBe(412);
    expect(((await stale.json()) as { detail: string }).detail).toContain('2nd selected record');
    expect(
      (await list(priya, 'item', '&q=')).records.some(({ values }) => values['item_notes'] === 'Both'),
    ).toBe(false);
    expect(await (await change(both, { item_notes: 'Both' })).json()).toEqual({ changed: 2 });
    const marcus = await session('Marcus Bell');
    const refused = await marcus.post(`${LIVE}/api/lists/l_items/bulk`, {
      data: { records: both, values: {} },
    });
    expect(refused.status()).toBe(404);
  });
});

test.describe('many records at once', () => {
  const MANY = 560;
  test.beforeAll(async () => {
    await query(
      `insert into records (application_id, kind, entity, id, data)
        select application_id, kind, entity, 'TRAY' || n,
          data || jsonb_build_object('item_title', 'Spare tray ' || n, 'item_notes', E'"On"\nthe shelf')
        from (select * from records where kind = 'live' and entity = 'item' order by id limit 1) as one,
          generate_series(1, $1::int) as n`,
      [MANY],
    );
  });
  test.afterAll(async () => {
    await query(`delete from records where id like 'TRAY%'`);
  });

  test('all that are found are chosen, and changed in batches; a list comes as a file', async ({ page }) => {
    await page.goto(`${LIVE}/sign-in?back=${encodeURIComponent(`${LIVE}/items?l_items.q=Spare tray`)}`);
    await fillSignIn(page, emailOf('Priya Raman'));
    await page.getByRole('checkbox', { name: 'Select all rows on this page' }).check();
    await page.getByRole('button', { name: `Select all ${MANY} matching records` }).click();
    await expect(page.getByText(`${MANY} selected`)).toBeVisible();
    const batches: number[] = [];
    page.on('request', (request) => {
      if (request.method() === 'POST' && request.url().endsWith('/bulk'))
        batches.push((request.postDataJSON() as { records: unknown[] }).records.length);
    });
    await page.getByRole('button', { name: `Bulk edit (${MANY})` }).click();
    await page.getByRole('dialog').getByLabel('Field').selectOption({ label: 'Notes' });
    await page.getByLabel('New value', { exact: true }).fill('Counted');
    await page.getByRole('button', { name: /^Change / }).click();
    await expect(page.getByText(`Records changed: ${MANY}.`, { exact: true })).toBeVisible();
    expect(batches).toEqual([500, MANY - 500]);
    const [counted] = await query<{ count: string }>(
      `select count(*) from records where id like 'TRAY%' and data ->> 'item_notes' = 'Counted'`,
    );
    expect(counted?.count).toBe(String(MANY));
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Export' }).click();
    const path = await (await download).path();
    expect(readFileSync(path, 'utf8').trim().split('\n')).toHaveLength(MANY + 1);
    // Who may not change many is not told what there is to choose.
    const marcus = await session('Marcus Bell');
    expect((await marcus.get(`${LIVE}/api/lists/l_items/bulk`)).status()).toBe(404);
  });
});

test.describe('what is closed', () => {
  test('says what its builder wants said, and a secret screen is as one that does not exist', async ({
    page,
  }) => {
    await page.goto(`${LIVE}/sign-in`);
    await fillSignIn(page, emailOf('Marcus Bell'));
    await page.waitForURL(`${LIVE}/items`);
    await page.goto(`${LIVE}/reports/out`);
    await expect(
      page.getByText(
        'For information about pieces on loan, ask the registrars at the desk in the Main Hall.',
      ),
    ).toBeVisible();
    await page.goto(`${LIVE}/reports/fragile`);
    await expect(page).toHaveURL(`${LIVE}/catalogue`);
    const words = async (address: string): Promise<string> => {
      await page.goto(`${LIVE}/${address}`);
      return page.locator('main').innerText();
    };
    expect(await words('reports/schedule')).toBe(await words('reports/nothing'));
    await page.getByRole('button', { name: /^Evenings/ }).click();
    await expect(page.getByRole('dialog')).toContainText('for Friends of Larkfield');
  });

  test('a locked field is opened for a while by somebody who may, for that record alone, and is recorded', async ({
    page,
  }) => {
    const marcus = await session('Marcus Bell');
    const approved = await query<{ id: string; who: string }>(
      `select id, data ->> 'loan_approver' as who from records where kind = 'live' and entity = 'loan' and data ->> 'loan_approver' is not null order by id limit 2`,
    );
    const [one, two] = approved;
    const unlock = (email: string, password = PASSWORD) =>
      page.request.post(`${LIVE}/api/unlock`, {
        headers: { Origin: process.env['BASE_URL'] ?? '' },
        data: { element: 'p_loan_approver', record: one?.id, email, password },
      });
    const without = (record: string) =>
      page.request.post(`${LIVE}/api/unlock`, {
        headers: { Origin: process.env['BASE_URL'] ?? '' },
        data: { element: 'l_loans_loan_fee', record, email: emailOf('Agnes Holloway'), password: PASSWORD },
      });
    await page.goto(`${LIVE}/sign-in?back=${encodeURIComponent(`${LIVE}/loans/${one?.id}`)}`);
    await fillSignIn(page, emailOf('Marcus Bell'));
    await page.waitForURL(`${LIVE}/loans/${one?.id}`);
    await expect(page.getByLabel('Unlock Approved by')).toBeVisible();
    await expect(page.getByText(one?.who ?? '?')).toHaveCount(0);
    expect((await unlock(emailOf('Priya Raman'))).status()).toBe(403);
    expect((await without('')).status()).toBe(422);
    expect((await without('nothing')).status()).toBe(404);
    expect((await unlock(emailOf('Agnes Holloway'), 'wrong')).status()).toBe(401);
    await page.getByLabel('Unlock Approved by').click();
    await page.getByLabel('Email address of that person').fill(emailOf('Agnes Holloway'));
    await page.getByLabel('Password of that person').fill(PASSWORD);
    await page.getByRole('dialog').getByRole('button', { name: 'Unlock' }).click();
    await expect(
      page
        .locator('main')
        .getByText(one?.who ?? '?')
        .first(),
    ).toBeVisible();
    await expect(page.getByText(/Approved by is unlocked until .* \(by Agnes Holloway\)/)).toBeVisible();
    await page.goto(`${LIVE}/loans/${two?.id}`);
    await expect(page.getByLabel('Unlock Approved by')).toBeVisible();
    await expect(page.getByText(/is unlocked until/)).toHaveCount(0);
    // Another session of the same person has it not.
    const elsewhere = (await (await marcus.get(`${RECORDS}/loan/${one?.id}`)).json()) as { values: object };
    expect(elsewhere.values).not.toHaveProperty('loan_approver');
    const [event] = await query<{ person: string; by: string }>(
      `select p.name as person, b.name as by from audit_events e join people p on p.id = e.person_id
        join people b on b.id::text = e.detail ->> 'by' where e.what = 'unlocked'`,
    );
    expect(event).toEqual({ person: 'Marcus Bell', by: 'Agnes Holloway' });
    // It is locked again at once.
    await page.goto(`${LIVE}/loans/${one?.id}`);
    await page.getByRole('button', { name: 'Lock Approved by again' }).click();
    await expect(page.getByLabel('Unlock Approved by')).toBeVisible();
    await expect(page.getByText(one?.who ?? '?')).toHaveCount(0);
  });

  test('a session value is set by its button only, for that session', async () => {
    const [trained] = await query<{ name: string }>(
      `select name from people where attributes ->> 'u_trained' >= '2027' and active and exists
        (select 1 from assignments where person_id = people.id and role_id = 'volunteer') order by name limit 1`,
    );
    const volunteer = await session(trained?.name);
    const [item] = (await list(volunteer, 'item')).records;
    const write = () =>
      volunteer.patch(`${RECORDS}/item/${item?.id}`, {
        headers: { 'If-Match': `"${item?.version}"` },
        data: { values: { item_store: 'Loft A, shelf 1' } },
      });
    expect((await write()).status()).toBe(403);
    const press = (button: string) => volunteer.post(`${LIVE}/api/session-values`, { data: { button } });
    expect((await press('b_save_item')).status()).toBe(404);
    expect((await press('b_take_stock')).status()).toBe(204);
    const [held] = await query<{ values: Record<string, unknown> }>(
      `select values from sessions where values <> '{}' limit 1`,
    );
    expect(held?.values).toHaveProperty('sv_stock');
    const visitor = await session();
    expect(
      (await visitor.post(`${LIVE}/api/session-values`, { data: { button: 'b_take_stock' } })).status(),
    ).toBe(404);
  });
});

test.describe('coming in, and looking after people', () => {
  test('an account that is asked for is nobody until its link is opened and a password chosen; then it can join', async ({
    page,
  }) => {
    await page.goto(`${LIVE}/sign-in`);
    await page.getByRole('link', { name: 'Sign up' }).click();
    await page.getByLabel('Name').fill('New Lender');
    await page.getByLabel('Email address').fill('new.lender@elsewhere.example');
    await page.getByRole('button', { name: 'Sign up' }).click();
    await expect(page.getByText('We have sent you an email')).toBeVisible();
    const visitor = await session();
    const signIn = () =>
      visitor.post(`${LIVE}/api/session`, {
        data: { email: 'new.lender@elsewhere.example', password: 'a long password' },
      });
    expect((await signIn()).status()).toBe(401);
    const [message] = await query<{ body: string; link: string }>(
      `select body, link from outbox where "to" = 'new.lender@elsewhere.example'`,
    );
    expect(message?.body).not.toContain('token');
    // Looking at it, as mail programs do, uses nothing up.
    await page.goto(message?.link ?? '');
    await page.goto(message?.link ?? '');
    await page.getByLabel(/^Password/).fill('short');
    await page.getByRole('button', { name: 'Set password' }).click();
    await expect(page.getByText('at least 10 characters.')).toBeVisible();
    await page.getByLabel(/^Password/).fill('a long password');
    await page.getByRole('button', { name: 'Set password' }).click();
    await expect(page.getByText('Password saved')).toBeVisible();
    await page.goto(message?.link ?? '');
    await expect(page.getByText('This link no longer works')).toBeVisible();
    await page.goto(`${LIVE}/sign-in`);
    await page.getByLabel('Email address').fill('new.lender@elsewhere.example');
    await page.getByLabel('Password').fill('a long password');
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    await expect(page).toHaveURL(`${LIVE}/pieces`);
    await page.getByRole('link', { name: 'New Lender' }).click();
    await page.getByRole('button', { name: 'Join Friend of Larkfield' }).click();
    await expect(page.getByRole('button', { name: 'Leave Friend of Larkfield' })).toBeVisible();
    await expect(page.getByRole('link', { name: 'Evenings' })).toBeVisible();
    // What nobody may join by themselves, they cannot.
    const refused = await page.request.put(`${LIVE}/api/account/roles/registrar`, {
      headers: { Origin: process.env['BASE_URL'] ?? '' },
    });
    expect(refused.status()).toBe(404);
  });

  test('a keeper hands out what they may, to others, and touches nobody who holds more', async () => {
    const delia = await session('Delia Marsh');
    const found = async (name: string) => {
      const answer = (await (await delia.get(`${LIVE}/api/people?q=${encodeURIComponent(name)}`)).json()) as {
        people: { id: string; assignments: { role: string }[]; link: boolean }[];
      };
      const [one] = answer.people;
      if (!one) throw new Error(name);
      return one;
    };
    const change = async (id: string, data: object) =>
      (await delia.patch(`${LIVE}/api/people/${id}`, { data })).status();
    const wren = await found('Nell Sparrow');
    expect(await change(wren.id, { give: [{ role: 'assistant' }] })).toBe(204);
    expect(await change(wren.id, { give: [{ role: 'lender' }, { role: 'head' }] })).toBe(403);
    expect(await change(wren.id, { take: [{ role: 'assistant' }] })).toBe(204);
    expect(await change(wren.id, { take: [{ role: 'assistant' }] })).toBe(409);
    expect(await change(wren.id, { email: 'harriet@elsewhere.example' })).toBe(403);
    expect(await change(wren.id, { attributes: { u_staff: true } })).toBe(403);
    expect(await change(wren.id, { homeUnit: 'main-hall' })).toBe(403);
    const agnes = await found('Agnes Holloway');
    expect(agnes.link).toBe(false);
    expect((await delia.post(`${LIVE}/api/people/${agnes.id}/link`)).status()).toBe(403);
    expect(await change(agnes.id, { active: false })).toBe(403);
    expect(await change(agnes.id, { take: [{ role: 'head' }] })).toBe(403);
    const self = await found('Delia Marsh');
    expect(await change(self.id, { give: [{ role: 'registrar' }] })).toBe(404);
    const marcus = await session('Marcus Bell');
    expect((await marcus.get(`${LIVE}/api/people`)).status()).toBe(404);
  });
});

test.describe('the people bench', () => {
  test('a newcomer writes “only their own, and only while on loan” in both forms', async ({ browser }) => {
    const page = await studio(browser, 'tamsin@larkfield.example', 'element=s_piece&viewer=role:lender');
    await page.getByRole('button', { name: 'Edit the condition for Lender' }).click();
    const text = page.getByLabel('Condition as text');
    await text.fill('record.lender_email = user.email and record.on_lo');
    await expect(page.getByText('Did you mean record.on_loan?')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Apply' })).toBeDisabled();
    await text.press('Enter');
    await expect(page.getByText(/^For \d+ of \d+ people: .*Harriet Arkwright/)).toBeVisible();
    await expect(page.getByLabel('Value to check')).toHaveCount(2);
    // The same by picking: the value turns, and the text with it.
    await page.getByLabel('Value').last().selectOption({ label: 'No' });
    await expect(text).toHaveValue('record.lender_email = user.email and record.on_loan = false');
    await page.getByRole('button', { name: 'Apply' }).click();
    await expect(page.getByRole('listitem', { name: /^Lender:/ })).toContainText('record.on_loan = false');
    await undoButton(page).click();
    await expect(page.getByRole('listitem', { name: /^Lender:/ })).toContainText('meets "Own piece"');
    await page.context().close();
  });

  test('roles are edited, loops refused, and deleting one says first what it changes', async ({
    browser,
  }) => {
    const page = await studio(browser);
    await page.getByRole('link', { name: 'People' }).click();
    await page.getByRole('button', { name: 'Roles', exact: true }).click();
    await page.getByRole('button', { name: 'Add role' }).click();
    await page.getByLabel('Role name').fill('Courier');
    await page.getByLabel('Role name').press('Enter');
    await page.getByRole('checkbox', { name: 'Volunteer' }).first().check();
    await expect(page.getByRole('button', { name: 'Courier, includes Volunteer' })).toBeVisible();
    await page.getByRole('button', { name: /^Volunteer/ }).click();
    await expect(
      page.getByRole('checkbox', { name: 'Courier (cannot be included because it includes this role)' }),
    ).toBeDisabled();
    await page.getByRole('button', { name: /^Auditor/ }).click();
    await page.getByRole('button', { name: 'Delete…' }).click();
    await expect(page.getByRole('dialog')).toContainText(/Lose access \(\d+\): .*Samuel Pryce/);
    await page.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('button', { name: /^Courier/ }).click();
    await page.getByRole('button', { name: 'Delete…' }).click();
    await page.getByRole('button', { name: 'Delete role' }).click();
    await expect(page.getByRole('button', { name: /^Courier/ })).toHaveCount(0);
    await expect(page.getByText(/^Saved, /)).toBeVisible();
    await page.context().close();
  });

  test('people are imported all or nothing, inspected, and switched off at once', async ({ browser }) => {
    const page = await studio(browser);
    await page.goto('/studio/larkfield/people');
    await page.getByRole('button', { name: 'Import CSV…' }).click();
    const upload = (text: string) =>
      page
        .getByLabel('File')
        .setInputFiles({ name: 'people.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
    const header = 'email,name,roles,u_trained\r\n';
    await upload(
      `${header}imported@x.example,"'=Ima Ported",volunteer@mill-annexe,2027-01-01\r\nbroken,,nothing,soon\r\n`,
    );
    await expect(page.getByText('One line has an error')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Apply changes \(/ })).toBeDisabled();
    await upload(`${header}imported@x.example,"'=Ima Ported",volunteer@mill-annexe,2027-01-01\r\n`);
    await page.getByRole('button', { name: /^Apply changes \(/ }).click();
    await page.getByLabel('Search people').fill('imported@x');
    await page.getByRole('button', { name: '=Ima Ported' }).click();
    const window = page.getByRole('dialog');
    await expect(window.getByRole('region', { name: 'Current access' })).toContainText(
      'Volunteer in Mill Annexe (assigned directly)',
    );
    await window.getByLabel(/^Test a condition/).fill('user in group "Trained to handle"');
    await expect(window.getByText('Yes. The condition is true for this person now.')).toBeVisible();
    await page.keyboard.press('Escape');
    const file = await page.request.get('/studio/api/applications/larkfield/people/csv');
    expect(await file.text()).toContain(
      "imported@x.example,'=Ima Ported,yes,,volunteer@mill-annexe,,2027-01-01",
    );
    const [count] = await query<{ count: string }>(`select count(*) from people where email = 'broken'`);
    expect(count?.count).toBe('0');
    const tomas = await session('Tomas Lindgren');
    expect((await tomas.get(`${RECORDS}/report`)).status()).toBe(200);
    await page.getByLabel('Search people').fill('Tomas Lindgren');
    await page.getByRole('button', { name: 'Tomas Lindgren' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Disable account' }).click();
    await expect(page.getByRole('dialog').getByRole('button', { name: 'Enable account' })).toBeVisible();
    expect((await tomas.get(`${RECORDS}/report`)).status()).toBe(404);
    await page.getByRole('dialog').getByRole('button', { name: 'Enable account' }).click();
    await expect(page.getByRole('dialog').getByRole('button', { name: 'Disable account' })).toBeVisible();
    expect((await tomas.get(`${RECORDS}/report`)).status()).toBe(404);
    await page.context().close();
  });
});
