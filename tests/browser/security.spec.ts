import { expect, type APIRequestContext } from '@playwright/test';
import { emailOf, LIVE, query, RECORDS, signInOverHttp, studio, undoButton, test } from './setting';

let request: APIRequestContext;
test.beforeEach(async ({ playwright, baseURL }) => {
  request = await playwright.request.newContext(baseURL ? { baseURL } : {});
});
test.afterEach(() => request.dispose());

const session = `${LIVE}/api/session`;
const signIn = (email: string, password: string, more: object = {}) =>
  request.post(session, { data: { email, password, ...more } });
const password = process.env['DEMO_PASSWORD'] ?? '';

test('what another site may have sent is refused', async () => {
  await signInOverHttp(request, 'Agnes Holloway');
  const headers = { 'If-Match': '"1"' };
  for (const foreign of [{ Origin: 'http://elsewhere.example' }, { 'Sec-Fetch-Site': 'cross-site' }]) {
    const answer = await request.delete(`${RECORDS}/item/nothing`, { headers: { ...headers, ...foreign } });
    expect(await answer.json()).toMatchObject({ type: 'urn:zinc-gate:problem:other-site', status: 403 });
  }
  const form = await request.post(`${RECORDS}/item`, { form: { item_title: 'x' } });
  expect(form.status()).toBe(415);
});

test('a session is a cookie that scripts cannot read, for its own application and not for the studio', async () => {
  const answer = await signIn(emailOf('Agnes Holloway'), password);
  const cookie = answer.headers()['set-cookie'] ?? '';
  for (const part of ['HttpOnly', 'SameSite=Lax', 'Path=/live/larkfield']) expect(cookie).toContain(part);
  const token = cookie.slice(cookie.indexOf('=') + 1, cookie.indexOf(';'));
  expect(token).toMatch(/^[\w-]{43}$/);
  expect(await query('select 1 from sessions where token_hash = $1', [token])).toEqual([]);
  const [installation] = await query<{ name: string }>('select name from installation');
  const asStudio = { Cookie: `zinc-${installation?.name}-studio=${token}` };
  expect(
    (await request.get('/studio/api/applications/larkfield/draft?since=0', { headers: asStudio })).status(),
  ).toBe(401);
});

test('signing in goes back only to an address of its own', async () => {
  for (const [back, to] of [
    ['//elsewhere.example/x', LIVE],
    ['https://elsewhere.example/', LIVE],
    ['/live/larkfield/../../studio', LIVE],
    ['/live/larkfieldish/x', LIVE],
    ['/\\elsewhere.example', LIVE],
    [`${LIVE}/items?a=b`, `${LIVE}/items?a=b`],
  ])
    expect(await (await signIn(emailOf('Agnes Holloway'), password, { back })).json()).toMatchObject({ to });
});

test('guessing passwords is slowed down, for accounts that do not exist too', async () => {
  for (const email of ['nobody@larkfield.example', emailOf('Samuel Pryce')]) {
    const statuses: number[] = [];
    for (let n = 0; n < 8; n++) statuses.push((await signIn(email, `guess ${n}`)).status());
    expect(statuses.slice(0, 5)).toEqual(Array.from({ length: 5 }, () => 401));
    expect(statuses).toContain(429);
    // What the request says of where it comes from changes nothing.
    const elsewhere = await request.post(session, {
      data: { email, password: 'guess' },
      headers: { 'X-Forwarded-For': '10.9.8.7', 'X-Zinc-Address': '10.9.8.7' },
    });
    expect([401, 429]).toContain(elsewhere.status());
    const [tries] = await query<{ sources: string }>(
      `select count(distinct source) as sources from sign_in_attempts where account like $1`,
      [`%${email}`],
    );
    expect(tries?.sources).toBe('1');
    await query('delete from sign_in_attempts where account like $1', [`%${email}`]);
  }
});

test('who is switched off, or signed out, has no session from that moment', async () => {
  await signInOverHttp(request, 'Tomas Lindgren');
  const items = () => request.get(`${RECORDS}/report`).then((answer) => answer.status());
  expect(await items()).toBe(200);
  await query(`update people set active = false where email = $1`, [emailOf('Tomas Lindgren')]);
  expect(await items()).toBe(404);
  expect((await signIn(emailOf('Tomas Lindgren'), password)).status()).toBe(401);
  await query(`update people set active = true where email = $1`, [emailOf('Tomas Lindgren')]);
  expect(await items()).toBe(200);
  await query(
    `update assignments set until = now() where person_id = (select id from people where email = $1)`,
    [emailOf('Tomas Lindgren')],
  );
  expect(await items()).toBe(404);
  await query(
    `update assignments set until = null where person_id = (select id from people where email = $1)`,
    [emailOf('Tomas Lindgren')],
  );
  await request.delete(session);
  expect(await items()).toBe(404);
});

test('before its scripts are there, a form takes no password that would then stand in the address', async ({
  browser,
}) => {
  const page = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
  await page.goto(`${LIVE}/sign-in`);
  await expect(page.getByLabel('Password')).toBeDisabled();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeDisabled();
});

test('pages come with a strict content policy, and run under it', async ({ page }) => {
  const complaints: string[] = [];
  page.on(
    'console',
    (message) => /Content Security|violates/i.test(message.text()) && complaints.push(message.text()),
  );
  const answer = await page.goto(`${LIVE}/catalogue`);
  const policy = answer?.headers()['content-security-policy'] ?? '';
  expect(policy).toMatch(/script-src 'nonce-[^']+' 'strict-dynamic';/);
  expect(policy).not.toMatch(/script-src[^;]*unsafe|\*/);
  expect(answer?.headers()).toMatchObject({ 'x-content-type-options': 'nosniff', 'x-frame-options': 'DENY' });
  await page.getByRole('searchbox').fill('blue');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/l_catalogue\.q=blue/);
  expect(complaints).toEqual([]);
});

test('a reviewer looks at everything and changes nothing', async ({ browser }) => {
  const page = await studio(browser, 'vera@larkfield.example', 'element=s_stores&viewer=role:curator');
  await expect(
    page
      .getByRole('status')
      .filter({ hasText: /^Read-only/ })
      .first(),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add line' })).toHaveCount(0);
  const answer = await page.request.post('/studio/api/applications/larkfield/draft', {
    data: { base: 0, ask: 'undo' },
  });
  expect(answer.status()).toBe(403);
});

test('an edit that is not sound is refused with its places, and nothing is stored', async ({ browser }) => {
  const page = await studio(browser);
  const send = (edit: object) =>
    page.request.post('/studio/api/applications/larkfield/draft', { data: { base: 0, ask: 'edit', edit } });
  const [before] = await query('select head_revision from applications');
  const line = { id: 'x', who: { kind: 'role', role: 'curator' }, what: 'see' };
  for (const edit of [
    { do: 'addLine', gate: 's_stores', line: { ...line, what: 'everything' }, at: 0 },
    { do: 'addLine', gate: 's_stores', line: { ...line, limit: 'block' }, at: 0 },
    { do: 'startLines', gate: 'no-such-element', lines: [line] },
    { do: 'follow', gate: 'larkfield', lines: [] },
    { do: 'dropEverything' },
  ]) {
    const answer = await send(edit);
    expect([409, 422]).toContain(answer.status());
    expect((await answer.json()).problems.length).toBeGreaterThan(0);
  }
  expect(await query('select head_revision from applications')).toEqual([before]);
});

test('two builders at once: the later sees the earlier’s block line, and loses none', async ({ browser }) => {
  const at = 'element=s_fragile&viewer=role:curator';
  const [ada, bo] = [
    await studio(browser, 'tamsin@larkfield.example', at),
    await studio(browser, 'jonah@larkfield.example', at),
  ];
  // The later one has not heard of it yet.
  await bo.route(/draft\?since=/, (route) => route.abort());
  const curator = ada.getByRole('listitem', { name: /^Curator[:,]/ });
  await curator.getByRole('radio', { name: 'Block' }).click();
  await expect(ada.getByText(/^Saved, /)).toBeVisible();
  await bo.getByRole('button', { name: 'Remove these lines and follow Reports' }).click();
  await expect(bo.getByText('Tamsin Reed changed the draft in the meantime').first()).toBeVisible();
  await expect(bo.getByRole('listitem', { name: 'Curator (directly assigned): Block' })).toBeVisible();
  await bo.unrouteAll();
  await undoButton(ada).click();
  await expect(ada.getByRole('listitem', { name: 'Curator: Read-only' })).toBeVisible();
  // And what the other does comes by itself.
  await expect(bo.getByRole('listitem', { name: 'Curator: Read-only' })).toBeVisible();
});

test('odd bytes are refused, and are no error of the server', async () => {
  await signInOverHttp(request, 'Agnes Holloway');
  const statuses = [
    await request.get(`${RECORDS}/item?q=%00`),
    await request.get(`${LIVE}/items/%00`),
    await request.get(`${RECORDS}/item?size=1e3`),
    await request.post(`${RECORDS}/item`, { data: { values: { item_title: 'a\u0000b' } } }),
    await request.post(`${RECORDS}/item`, { data: { values: [] } }),
    await request.post(`${RECORDS}/item`, {
      data: Buffer.from('{"values":'),
      headers: { 'Content-Type': 'application/json' },
    }),
    await request.patch(`${RECORDS}/item/x`, { data: { values: {} } }),
  ].map((answer) => answer.status());
  expect(statuses).toEqual([400, 400, 422, 422, 422, 400, 428]);
});
