import { expect } from '@playwright/test';
import fc from 'fast-check';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { request, type OutgoingHttpHeaders } from 'node:http';
import { join } from 'node:path';
import { found, runs } from '../runs';
import { emailOf, query, test } from './setting';

const base = (): URL => new URL(process.env['BASE_URL'] ?? '');
const PASSWORD = process.env['DEMO_PASSWORD'] ?? '';
/** Stands in every text that is sent: it must not come to stand in the log. */
const MARK = 'zg-mark-7319';

interface Wire {
  readonly method: string;
  readonly path: string;
  readonly headers: OutgoingHttpHeaders;
  readonly body?: Buffer | string | undefined;
}

/** Sends bytes as they are: nothing is put right on the way. */
const send = ({ method, path, headers, body }: Wire) =>
  new Promise<{ status: number; type: string; text: string; headers: NodeJS.Dict<string | string[]> }>(
    (resolve, reject) => {
      const asked = request(
        {
          host: base().hostname,
          port: base().port,
          method,
          path,
          headers: { host: base().host, ...headers },
        },
        (answer) => {
          let text = '';
          const type = answer.headers['content-type'] ?? '';
          const told = () => resolve({ status: answer.statusCode ?? 0, type, text, headers: answer.headers });
          answer.setEncoding('utf8');
          answer.on('data', (part) => {
            text += part;
            // News do not end.
            if (!type.startsWith('text/event-stream')) return;
            told();
            asked.destroy();
          });
          answer.on('end', told);
        },
      );
      asked.setTimeout(30_000, () => asked.destroy(new Error(`${method} ${path} was not answered`)));
      asked.on('error', reject);
      asked.end(body);
    },
  );

/** Every route handler: its address with the names of its parts, and its methods. */
function routes(): { readonly path: string; readonly methods: string[] }[] {
  const root = new URL('../../src/app', import.meta.url).pathname;
  const walk = (folder: string): string[] =>
    readdirSync(folder).flatMap((name) => {
      const path = join(folder, name);
      return statSync(path).isDirectory() ? walk(path) : name === 'route.ts' ? [path] : [];
    });
  return walk(root).map((file) => ({
    path: file.slice(root.length, -'/route.ts'.length).replace(/\/\([^)]*\)/g, ''),
    methods: [...readFileSync(file, 'utf8').matchAll(/export const (GET|POST|PUT|PATCH|DELETE)\b/g)].map(
      ([, method = '']) => method,
    ),
  }));
}

async function cookieFor(path: string, email: string): Promise<string> {
  const { status, headers } = await send({
    method: 'POST',
    path,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password: PASSWORD }),
  });
  expect(status).toBe(200);
  return [headers['set-cookie'] ?? []]
    .flat()
    .map((one) => one.split(';')[0])
    .join('; ');
}

const hostileText = fc.oneof(
  fc.string(),
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.constantFrom(
    MARK,
    '',
    '\0',
    '\ud800',
    '__proto__',
    'constructor',
    '../../etc/passwd',
    "' or 1=1 --",
    '{{7*7}}',
    '-1',
    '1e309',
    'NaN',
    '2147483648',
    '9007199254740993',
    'ITEM0001',
    'item',
    'larkfield',
    'item_value',
    '00000000-0000-4000-8000-000000000000',
    'x'.repeat(5000),
    'é'.repeat(200),
    'a@'.repeat(2000),
    '('.repeat(1500),
    'or '.repeat(600),
    'record.item_title = "x" or '.repeat(70),
    '"\\u0000"',
    'made:{"assignments":[{"role":{}}]}',
    'made:{',
    'draft:999999999',
    'person:x',
    '=cmd|x',
    '%',
  ),
);
const hostileJson = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.object({ maxDepth: 3, withNullPrototype: false }).map((one) => JSON.stringify(one)),
  },
  { weight: 2, arbitrary: fc.json() },
  {
    weight: 3,
    arbitrary: fc.constantFrom(
      '',
      'null',
      '[]',
      '{}',
      '"x"',
      '{"a":',
      `[${'{},'.repeat(30_000)}{}]`,
      `{"edit":{"do":"together","edits":[${'{},'.repeat(20_000)}{}]},"base":0,"ask":"edit"}`,
      `${'['.repeat(20_000)}${']'.repeat(20_000)}`,
      `{"values":${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}}`,
      '{"__proto__":{"x":1}}',
      '{"values":{"constructor":"x"}}',
      '{"values":{"toString":{"valueOf":"y"}}}',
      '{"email":null,"password":[]}',
      '{"base":1e300,"ask":"undo"}',
      '{"ask":"edit","base":0}',
      '{"ask":"edit","base":0,"edit":{"do":"addItem","list":"roles","at":0}}',
      '{"revision":1e9}',
      '{"name":"\\u0000","email":"\\ud800@x.y"}',
      `{"name":"${MARK}","email":"${'a'.repeat(50_000)}@"}`,
      '{"records":[{"id":"x","version":"y"}],"values":{"item_title":null}}',
    ),
  },
);
/** Bodies whose keys are known, with values of any kind. */
const nearly = fc
  .dictionary(
    fc.constantFrom(
      'name',
      'email',
      'password',
      'back',
      'values',
      'records',
      'record',
      'element',
      'button',
      'person',
      'people',
      'builder',
      'live',
      'edit',
      'base',
      'ask',
      'token',
      'text',
      'address',
      'give',
      'take',
      'assignments',
      'attributes',
      'homeUnit',
      'viewer',
      'condition',
      'entity',
      'active',
    ),
    fc.oneof(hostileText, fc.jsonValue({ maxDepth: 2 })),
    { maxKeys: 5 },
  )
  .map((one) => JSON.stringify(one));

test('no route falls over, whoever sends whatever: never a 5xx, never a stack', async () => {
  test.setTimeout(600_000);
  const all = routes();
  expect(all.length).toBeGreaterThan(35);
  const cookies = [
    '',
    await cookieFor('/live/larkfield/api/session', emailOf('Wren Tolliver')),
    await cookieFor('/live/larkfield/api/session', emailOf('Agnes Holloway')),
    await cookieFor('/studio/api/session', 'vera@larkfield.example'),
  ];
  const encoded = (text: string): string => encodeURIComponent(text.toWellFormed()).slice(0, 3000);
  const part = fc.oneof(
    hostileText.map(encoded),
    fc.constantFrom('larkfield', 'item', 'ITEM0001', '%ff', '%00', '%E0%80', '..%2f..'),
  );
  const asked = fc.record({
    route: fc.constantFrom(...all),
    parts: fc.array(part, { minLength: 4, maxLength: 4 }),
    ours: fc.boolean(),
    search: fc.array(
      fc.tuple(
        fc.constantFrom(
          'q',
          'filter',
          'sort',
          'page',
          'size',
          'since',
          'viewer',
          'on',
          'moment',
          'session',
          'records',
          'pane',
          'address',
          'element',
          'level',
          'row',
          'entity',
          'record',
          'dry',
          'face',
          'role',
          'state',
          'units',
        ),
        hostileText,
      ),
      { maxLength: 4 },
    ),
    body: fc.oneof(
      hostileJson,
      nearly,
      nearly,
      fc.uint8Array({ maxLength: 200 }).map((bytes) => Buffer.from(bytes)),
    ),
    type: fc.constantFrom(
      'application/json',
      'application/json',
      'application/json; charset=utf-16',
      'text/plain',
      'text/csv',
      '',
    ),
    more: fc.dictionary(
      fc.constantFrom(
        'if-match',
        'x-forwarded-for',
        'x-forwarded-host',
        'x-forwarded-proto',
        'x-middleware-subrequest',
        'next-action',
        'rsc',
        'accept',
        'accept-language',
        'x-zinc-address',
        'sec-fetch-site',
        'range',
      ),
      fc.stringMatching(/^[ -~]{0,60}$/),
      { maxKeys: 3 },
    ),
    method: fc.nat(),
    cookie: fc.constantFrom(...cookies),
  });
  let reached = 0;
  await fc.assert(
    fc.asyncProperty(asked, async ({ route, parts, ours, search, body, type, more, method, cookie }) => {
      let n = 0;
      const path = route.path.replace(/\[[^\]]+\]/g, (name) =>
        name === '[app]' && ours ? 'larkfield' : (parts[n++] ?? 'x'),
      );
      const query = search.map(([name, text]) => `${name}=${encoded(text)}`).join('&');
      const verb = route.methods[method % route.methods.length] ?? 'GET';
      // What ends the sessions that this goes on with, or changes what other tests rest on, is left out.
      if (verb === 'DELETE' && path.endsWith('/session')) return;
      const answer = await send({
        method: verb,
        path: `${path}${query && `?${query}`}`,
        headers: {
          ...more,
          ...(type && { 'content-type': type }),
          ...(cookie && { cookie }),
          ...(verb !== 'GET' && { 'content-length': Buffer.byteLength(body) }),
        },
        body: verb === 'GET' ? undefined : body,
      });
      const what = `${verb} ${path}?${query} ${String(body).slice(0, 200)}: ${answer.status} ${answer.text.slice(0, 200)}`;
      expect(answer.status, what).toBeLessThan(500);
      expect(answer.text, what).not.toMatch(
        /node_modules|node:internal|\bat \S+ \(\S+:\d+:\d+\)|Failed query|SQLSTATE/,
      );
      if (answer.status >= 400 && answer.type.includes('json'))
        expect(answer.type, what).toContain('problem+json');
      if (answer.status < 400) reached++;
    }),
    { numRuns: runs(750), endOnFailure: true },
  );
  expect(reached).toBeGreaterThan(found(10));
});

test('what needs no sign-in is refused quickly, however large it is made', async () => {
  const large = `{"email":[${'{},'.repeat(33_000)}{}],"password":""}`;
  const once = async (body: string): Promise<number> => {
    const begun = performance.now();
    const answer = await send({
      method: 'POST',
      path: '/live/larkfield/api/session',
      headers: { 'content-type': 'application/json' },
      body,
    });
    expect(answer.status).toBeLessThan(500);
    return performance.now() - begun;
  };
  const plain = Math.min(...(await Promise.all([1, 2, 3].map(() => once('{"email":"x","password":"y"}')))));
  // Ratios within one run: what is looked at first must not cost a hundred times what an honest try does.
  expect(Math.min(await once(large), await once(large))).toBeLessThan(plain * 20 + 200);
});

test('the log tells failures by their codes, and holds nothing of what was sent or stored', async () => {
  const file = `${process.env['ZINC_GATE_DATA'] ?? '.data'}/server.log`;
  const cookie = await cookieFor('/live/larkfield/api/session', emailOf('Wren Tolliver'));
  let failed = '';
  await query('alter table notes rename to notes_away');
  await query('alter table records rename to records_away');
  try {
    const note = await send({
      method: 'POST',
      path: '/live/larkfield/api/notes',
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify({ address: `/${MARK}`, text: MARK }),
    });
    expect(note.status).toBe(500);
    failed = String(note.headers['x-request-id']);
    expect(note.text).not.toContain(MARK);
    const page = await send({
      method: 'GET',
      path: `/live/larkfield/items?l_items.q=${MARK}`,
      headers: { accept: 'text/html', cookie },
    });
    expect(page.status).toBe(500);
    expect(page.text).toContain('Something went wrong');
    expect(page.text).not.toMatch(/Failed query|records/);
  } finally {
    await query('alter table notes_away rename to notes');
    await query('alter table records_away rename to records');
  }
  const log = readFileSync(file, 'utf8');
  expect(log).toContain('"code":"42P01"');
  // The answer's id finds what is said of it: why it failed, and that it was answered.
  const lines = log.split('\n').filter((line) => line.includes(failed));
  expect(failed).toMatch(/^[\da-f-]{36}$/);
  expect(lines.map((line) => JSON.parse(line))).toEqual([
    expect.objectContaining({ code: '42P01', method: 'POST' }),
    expect.objectContaining({ method: 'POST', path: '/live/larkfield/api/notes', status: 500 }),
  ]);
  expect(log).not.toContain(MARK);
  expect(log).not.toMatch(/argon2|insert into|select .* from/i);
});
