import { readdirSync, readFileSync } from 'node:fs';
import { type APIRequestContext, expect, request as requests } from '@playwright/test';
import type { AnyRoute } from '@/contract/route';
import { ROUTES } from '@/contract/routes';
import { query, test } from './setting';

const APP = 'src/app';

const keyOf = ({ method, path }: Pick<AnyRoute, 'method' | 'path'>): string =>
  `${method} ${path.replace(/\?.*/, '')}`;

/** A route with something at each of its names. */
const addressOf = ({ path }: AnyRoute, app: string): string =>
  path
    .replace(/\?.*/, '')
    .replace(':app', app)
    .replace(':entity', 'item')
    .replace(/:\w+/g, '00000000-0000-4000-8000-000000000000');

const ask = async (request: APIRequestContext, route: AnyRoute, app = 'larkfield'): Promise<number> =>
  (await request.fetch(addressOf(route, app), { method: route.method, maxRedirects: 0 })).status();

async function signedIn(baseURL: string, email: string): Promise<APIRequestContext> {
  const request = await requests.newContext({ baseURL });
  const data = { email, password: process.env['DEMO_PASSWORD'] };
  expect((await request.post('/studio/api/session', { data })).status()).toBe(200);
  return request;
}

test('every route that there is has a contract, and every contract a route', () => {
  const files = readdirSync(APP, { recursive: true, encoding: 'utf8' }).filter((one) =>
    /\broute\.ts$/.test(one),
  );
  const there = files.flatMap((file) => {
    const path = `/${file.replace(/\/?route\.ts$/, '')}`
      .replace(/\/\(\w+\)/g, '')
      .replace(/\[(\w+)\]/g, ':$1');
    const methods = readFileSync(`${APP}/${file}`, 'utf8').matchAll(/^export const ([A-Z]+) =/gm);
    return [...methods].map(([, method]) => `${method} ${path}`);
  });
  expect(ROUTES.map(keyOf).sort()).toEqual(there.sort());
});

test('who has not the right that a contract asks for is refused, whatever they send', async ({ baseURL }) => {
  await query("update memberships set people = false, releases = false, live = 'none' where role <> 'owner'");
  const nobody = await requests.newContext({ baseURL: baseURL ?? '' });
  const editor = await signedIn(baseURL ?? '', 'jonah@larkfield.example');
  const reviewer = await signedIn(baseURL ?? '', 'vera@larkfield.example');
  const wrong: string[] = [];
  const holds = (route: AnyRoute, who: string, status: number, should: number): void => {
    if (status !== should) wrong.push(`${keyOf(route)}: ${who} gets ${status}, not ${should}`);
  };
  let refused = 0;
  for (const route of ROUTES) {
    const { right } = route;
    if (right === 'anybody') continue;
    if (right === 'visitor') {
      holds(route, 'who asks for what is not there', await ask(nobody, route, 'no-such'), 404);
      continue;
    }
    holds(route, 'signed-out visitors', await ask(nobody, route), 401);
    if (right === 'builder') continue;
    holds(route, 'a builder of something else', await ask(editor, route, 'no-such'), 404);
    const changes =
      typeof right === 'object' && 'records' in right ? right.records === 'change' : right !== 'read';
    if (changes) {
      holds(route, 'a reviewer', await ask(reviewer, route), 403);
      refused++;
    }
    if (typeof right === 'object' ? 'owner' in right : right === 'people' || right === 'release')
      holds(route, 'an editor', await ask(editor, route), 403);
  }
  expect(wrong).toEqual([]);
  expect(refused).toBeGreaterThan(30);
});
