import {
  expect,
  test as base,
  type APIRequestContext,
  type Browser,
  type Locator,
  type Page,
} from '@playwright/test';
import pg from 'pg';
import { ownServer } from './own-server';

const waiting = new WeakSet<Browser>();

/** From now on a page of this browser that was gone to is one that hears: whoever clicks before its scripts is not heard. */
function waitForScripts(browser: Browser): void {
  if (waiting.has(browser)) return;
  waiting.add(browser);
  const newContext = browser.newContext.bind(browser);
  browser.newContext = async (options) => {
    const context = await newContext(options);
    context.on('page', (page) => {
      const goto = page.goto.bind(page);
      page.goto = async (url, how) => {
        const answer = await goto(url, how);
        await page.waitForFunction(isHeard, undefined, { timeout: 10_000 }).catch(() => undefined);
        return answer;
      };
    });
    return context;
  };
}

/** Has React taken over what one can type in and press? */
const isHeard = (): boolean =>
  [...document.querySelectorAll('main input, main button, header button')].every((one) =>
    Object.keys(one).some((key) => key.startsWith('__reactProps')),
  );

/**
 * Each file of tests has a server and a demo of its own, unless BASE_URL names one that runs. The pages of a test are
 * closed at its end: open ones hear what the next ones do, and work along.
 */
export const test = base.extend<{ closed: undefined }, { server: string; liveHost: string | undefined }>({
  /** The name of an origin that the released applications have for themselves. */
  liveHost: [undefined, { scope: 'worker', option: true }],
  server: [
    async ({ liveHost }, use, { workerIndex }) => {
      const running = process.env['BASE_URL'];
      if (running) return use(running);
      const own = await ownServer(`zinc_browser_${workerIndex}`, liveHost);
      Object.assign(process.env, { BASE_URL: own.address, DATABASE_URL: own.database });
      await use(own.address);
      await own.stop();
    },
    { scope: 'worker', auto: true, timeout: 120_000 },
  ],
  baseURL: async ({ server }, use) => use(server),
  closed: [
    async ({ browser }, use) => {
      const before = new Set(browser.contexts());
      waitForScripts(browser);
      await use(undefined);
      for (const context of browser.contexts()) if (!before.has(context)) await context.close();
    },
    { auto: true },
  ],
});

export const LIVE = '/live/larkfield';
export const RECORDS = `${LIVE}/api/records`;
const PASSWORD = process.env['DEMO_PASSWORD'] ?? '';

/** Runs one statement on the database behind the server. */
export async function query<T extends pg.QueryResultRow>(text: string, values: unknown[] = []): Promise<T[]> {
  const client = new pg.Client({ connectionString: process.env['DATABASE_URL'] });
  await client.connect();
  try {
    return (await client.query<T>(text, values)).rows;
  } finally {
    await client.end();
  }
}

export const emailOf = (name: string): string => `${name.toLowerCase().replace(' ', '.')}@larkfield.example`;

/** Signs in to the released application over plain HTTP. */
export async function signInOverHttp(request: APIRequestContext, name: string): Promise<void> {
  const answer = await request.post(`${LIVE}/api/session`, {
    data: { email: emailOf(name), password: PASSWORD },
  });
  expect(answer.status()).toBe(200);
}

export async function fillSignIn(page: Page, email: string): Promise<void> {
  await page.getByLabel('Email address').fill(email);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  // Where it leads hears what is pressed there; who is refused stays.
  await page
    .waitForURL((url) => !url.pathname.endsWith('/sign-in'), { timeout: 10_000 })
    .then(() => page.waitForFunction(isHeard, undefined, { timeout: 10_000 }))
    .catch(() => undefined);
}

/** A page in a browser session of its own, signed in to the studio, on the gates bench. */
export async function studio(
  browser: Browser,
  email = 'tamsin@larkfield.example',
  query = '',
): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  const answer = await page.request.post('/studio/api/session', { data: { email, password: PASSWORD } });
  expect(answer.status()).toBe(200);
  await page.goto(`/studio/larkfield/gates${query && `?${query}`}`);
  await expect(
    page
      .getByRole('status')
      .filter({ hasText: /^Saved|^Read-only/ })
      .first(),
  ).toBeVisible();
  // The page works once the canvas has its first screen.
  await expect(page.getByLabel('Address in the application')).not.toHaveValue('/');
  return page;
}

/** The bar's own button; what was taken away may offer another beside it. */
export const undoButton = (page: Page): Locator =>
  page.getByRole('group', { name: 'Undo and redo' }).getByRole('button', { name: 'Undo' });

/** An item with a mark of its own in every field, live and sample. */
export const MARKED = {
  id: 'MARKED0001',
  values: {
    item_accession: 'MARK-accession',
    item_title: 'MARK-title',
    item_maker: 'MARK-maker',
    item_year: 'MARK-year',
    item_condition: 'fragile',
    item_value: '7319284.5',
    item_store: 'MARK-store',
    item_lender: 'MARK-lender',
    item_branch: 'main-hall',
    item_shown: true,
    item_notes: 'MARK-notes',
  },
} as const;

/** The marked insurance value as it is stored, and as it is shown. */
export const VALUE_MARKS = ['7319284.5', '7319284', '7,319,284'];

export async function putMarkedItem(): Promise<void> {
  for (const kind of ['live', 'sample'])
    await query(
      `insert into records (application_id, kind, entity, id, data) values ('larkfield', $1, 'item', $2, $3)
       on conflict (application_id, kind, entity, id) do update set data = excluded.data, version = 1`,
      [kind, MARKED.id, JSON.stringify(MARKED.values)],
    );
}

/** Keeps the bytes of every answer that the page gets, but of the news, which do not end. */
export function recordAnswers(page: Page): { all(): Promise<string> } {
  const bodies: Promise<string>[] = [];
  page.on('response', (response) => {
    if (response.url().endsWith('/news')) return;
    bodies.push(
      response.body().then(
        (body) => `${response.url()} ${JSON.stringify(response.headers())} ${body.toString('utf8')}`,
        () => response.url(),
      ),
    );
  });
  return { all: async () => (await Promise.all(bodies)).join('\n') };
}

/** None of the marks is anywhere in the text. */
export function expectNone(text: string, marks: readonly string[]): void {
  for (const mark of marks) expect(text.includes(mark), `the answer holds ${mark}`).toBe(false);
}
