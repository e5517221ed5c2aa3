import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { readMoment } from '@/core/condition';
import { exactly, FORMAT, isMoment, listOf } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { originOfHost, servesPath } from '@/server/hosts.mjs';
import { plainCell, toCsv } from '@/server/csv';
import { database, isAway, isUnstorable } from '@/server/database/client';
import { applications, edits, snapshots } from '@/server/database/schema';
import { change, draftOf } from '@/server/drafts/draft';
import { json } from '@/contract/body';
import { readBody } from '@/server/http/answering';
import { readBytes } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { errorForLog } from '@/server/log';
import { ownAddress, requireSameOrigin } from '@/server/http/origin';
import { cookieHeader, liveCookie, studioCookie } from '@/server/security/sessions';
import { upgradeStored } from '@/server/upgrade';
import * as yup from 'yup';
import { application, dropApplications, emptyDatabase, underNewId } from './setting';
import { installed } from './visits';
import { runs } from '../runs';

const environment = { ...process.env };
afterEach(() => {
  for (const name of ['PUBLIC_URL', 'LIVE_ORIGIN'])
    if (environment[name] === undefined) Reflect.deleteProperty(process.env, name);
    else process.env[name] = environment[name];
});
const set = (publicUrl: string, liveOrigin = ''): void => {
  process.env['PUBLIC_URL'] = publicUrl;
  process.env['LIVE_ORIGIN'] = liveOrigin;
};

beforeAll(async () => {
  await emptyDatabase();
  await installed();
});

describe('hosts', () => {
  it.each([
    [
      '',
      '',
      ['127.0.0.1:4620', 'localhost', '[::1]:1'],
      ['evil.test', '127.0.0.1.evil.test', '', 'localhost:x'],
    ],
    ['http://127.0.0.1:4620', '', ['127.0.0.1:4620', 'localhost:4620'], ['zinc.test', '10.0.0.1']],
    ['https://zinc.test', '', ['zinc.test', 'ZINC.test'], ['zinc.test:8080', '127.0.0.1', 'www.zinc.test']],
    [
      'https://zinc.test',
      'https://apps.test',
      ['zinc.test', 'apps.test'],
      ['apps.test:8080', 'x.apps.test', 'localhost'],
    ],
  ])('of PUBLIC_URL %s and LIVE_ORIGIN %s are served, and no others', (own, live, served, refused) => {
    set(own, live);
    for (const host of served) expect([host, originOfHost(host) !== undefined]).toEqual([host, true]);
    for (const host of refused) expect([host, originOfHost(host)]).toEqual([host, undefined]);
  });

  it('serve each their own part, where the applications have an origin of their own', () => {
    set('https://zinc.test', 'https://apps.test');
    expect(servesPath('apps.test', '/live/larkfield')).toBe(true);
    expect(servesPath('apps.test', '/studio')).toBe(false);
    expect(servesPath('zinc.test', '/live/larkfield')).toBe(false);
    expect(servesPath('zinc.test', '/studio')).toBe(true);
  });

  it('are compared with where a change comes from, whatever else the request says', () => {
    set('https://zinc.test');
    const asked = (headers: Record<string, string>) => () =>
      requireSameOrigin(new Request('http://x/', { headers: { host: 'zinc.test', ...headers } }));
    expect(asked({ origin: 'https://zinc.test', 'sec-fetch-site': 'same-origin' })).not.toThrow();
    expect(asked({})).not.toThrow();
    for (const headers of [
      { origin: 'http://zinc.test' },
      { origin: 'https://evil.test', 'x-forwarded-host': 'evil.test' },
      { origin: 'null' },
      { 'sec-fetch-site': 'same-site' },
      { host: 'evil.test', origin: 'https://evil.test' },
    ])
      expect(asked(headers as unknown as Record<string, string>)).toThrow(Refused);
  });

  it('are the only ones to go back to', () => {
    expect(ownAddress('/live/x/items?q=1', '/live/x')).toBe('/live/x/items?q=1');
    for (const back of [
      '//evil.test',
      '/\\evil.test',
      'https://evil.test',
      '/live/xy',
      '/live/x/../../studio',
      '/live/x\n',
    ])
      expect([back, ownAddress(back, '/live/x')]).toEqual([back, undefined]);
  });
});

describe('cookies', () => {
  it('over https are of the host alone, and else of their path', async () => {
    set('https://zinc.test');
    const [studio, live] = [await studioCookie(), await liveCookie('larkfield')];
    expect(cookieHeader(studio, 'token')).toBe(
      '__Host-zinc-test-studio=token; Path=/; Max-Age=43200; HttpOnly; SameSite=Lax; Secure',
    );
    expect(live.name).toBe('__Host-zinc-test-live-larkfield');
    expect(cookieHeader(live, null)).toContain('Max-Age=0');
    set('http://127.0.0.1:4620');
    expect(cookieHeader(await liveCookie('larkfield'), 'token')).toBe(
      'zinc-test-live=token; Path=/live/larkfield; Max-Age=43200; HttpOnly; SameSite=Lax',
    );
    expect((await studioCookie('device')).age).toBeGreaterThan(30_000_000);
  });
});

describe('CSV that goes out', () => {
  const cell = fc.string({
    unit: fc.constantFrom('=', '+', '-', '@', '\t', '\r', '\n', '"', ',', "'", ' ', 'a', '\u2028', '1'),
  });

  it('has no cell that acts as a formula, and comes back as it was', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { minLength: 2, maxLength: 2 }), { minLength: 1, maxLength: 4 }),
        (rows) => {
          const text = toCsv(rows);
          const read = parse(text, { relax_column_count: true }) as string[][];
          expect(read.map((cells) => cells.map(plainCell))).toEqual(rows);
          for (const one of read.flat()) expect(one).not.toMatch(/^[=+\-@\t\r\n]/);
          // A reader that takes any line break for the end of a row finds none outside of quotes.
          const outside = text
            .replace(/"(?:[^"]|"")*"/g, '')
            .split('\r\n')
            .join('');
          expect(outside).not.toMatch(/[\r\n\t\u0085\u2028\u2029]/);
        },
      ),
      { numRuns: runs(1000) },
    );
  });
});

describe('moments', () => {
  it.each([
    ['2026-03-14T09:30:00Z', true],
    ['2026-03-14 09:30:00+05:30', true],
    ['2024-02-29T00:00:00.123Z', true],
    ['2026-02-29T00:00:00Z', false],
    ['2026-02-30T00:00:00Z', false],
    ['0000-01-01T00:00:00Z', false],
    ['+275760-09-13T00:00:00Z', false],
    ['2026-13-01T00:00:00Z', false],
    ['2026-01-01T24:00:00Z', false],
    ['2026-01-01T00:00:00', false],
    ['2026-01-01T00:00:00+25:00', false],
  ])('%s is one: %s', (text, is) => expect(isMoment(text)).toBe(is));

  it('without a zone are of the application’s, whatever the process’s is', () => {
    expect(readMoment('2026-07-01', 'America/New_York')).toBe('2026-07-01T04:00:00.000Z');
    expect(readMoment('2026-07-01T12:30', 'Asia/Tokyo')).toBe('2026-07-01T03:30:00.000Z');
    expect(readMoment('2026-07-01T12:30:00Z', 'Asia/Tokyo')).toBe('2026-07-01T12:30:00.000Z');
    for (const bad of ['soon', '2026-02-30', '', '12:00']) expect(readMoment(bad, 'UTC')).toBeUndefined();
  });
});

describe('requests', () => {
  const post = (body: string | Uint8Array, type = 'application/json') =>
    new Request('http://127.0.0.1:4620/x', {
      method: 'POST',
      headers: { 'content-type': type, host: '127.0.0.1:4620' },
      body: body as BodyInit,
    });
  const code = (work: Promise<unknown>) =>
    work.then(
      () => 'read',
      (error: unknown) => (error as Refused).code,
    );
  const shape = exactly({
    items: listOf(exactly({ id: yup.string().required() }), 50),
    any: yup.object(),
  });

  it.each([
    ['{"items":[{"id":"a"}]}', 'read'],
    ['{"items":[{"id":"a"}', 'not-json'],
    ['{"items":[{"id":"\\u0000"}]}', 'shape'],
    ['{"items":[{"id":"\\ud800"}]}', 'shape'],
    ['{"items":[{"id":"a","__proto__":1}]}', 'shape'],
    ['{"items":[],"any":{"a":1}}', 'read'],
    ['{"items":[],"any":{"constructor":"x"}}', 'shape'],
    ['{"items":[],"any":{"a":{"hasOwnProperty":1}}}', 'shape'],
    [`{"items":${'['.repeat(150)}${']'.repeat(150)}}`, 'shape'],
    [`{"items":[${'{},'.repeat(60)}{}]}`, 'shape'],
    [`{"items":[${'{},'.repeat(5000)}{}]}`, 'shape'],
    [`{"items":"${'x'.repeat(100_001)}"}`, 'too-large'],
  ])('are as they must be, or refused (%#)', async (body, is) => {
    expect(
      await code(
        readBody(
          post(body),
          json(async () => ({ shape }), 'shape'),
        ),
      ),
    ).toBe(is);
  });

  it('that are no UTF-8, of another type, or longer than they say are refused', async () => {
    expect(
      await code(
        readBody(
          post(new Uint8Array([0x22, 0xff, 0x22])),
          json(async () => ({ shape }), 'shape'),
        ),
      ),
    ).toBe('not-utf-8');
    expect(
      await code(
        readBody(
          post('{}', 'text/plain'),
          json(async () => ({ shape }), 'shape'),
        ),
      ),
    ).toBe('not-json');
    expect(await code(readBytes(post('x'.repeat(20)), 10))).toBe('too-large');
  });

  it('tell at most twenty faults, each place once', async () => {
    const bad = JSON.stringify({ items: Array.from({ length: 50 }, () => ({})) });
    const error = (await readBody(
      post(bad),
      json(async () => ({ shape }), 'shape'),
    ).catch((reason: unknown) => reason)) as Refused;
    const places = error.more.problems?.map(({ place }) => place) ?? [];
    expect(places[0]).toBe('items[0].id');
    expect(places).toHaveLength(20);
    expect(new Set(places).size).toBe(20);
  });

  it('that fail are told by what they are: never by what an error says', async () => {
    const secret = 'the-secret-value';
    const failing = (error: unknown) => handle(() => Promise.reject(error))(post('{}'), {});
    const statement = database().execute(sql`select ${secret}::int`);
    const unstorable: unknown = await statement.catch((reason: unknown) => reason);
    expect(isUnstorable(unstorable)).toBe(true);
    expect((await failing(unstorable)).status).toBe(422);
    const away = Object.assign(new Error(secret), { code: 'ECONNREFUSED' });
    expect(isAway(new Error('wrapped', { cause: away }))).toBe(true);
    const answer = await failing(away);
    expect([answer.status, answer.headers.get('retry-after')]).toEqual([503, '5']);
    const odd = await failing(new Error(secret));
    expect(odd.status).toBe(500);
    for (const one of [unstorable, away, new Error(secret), secret])
      expect(JSON.stringify(errorForLog(one))).not.toContain(secret);
    expect(errorForLog(unstorable)).toMatchObject({ code: '22P02' });
    expect(await odd.text()).not.toContain(secret);
  });
});

describe('data of an earlier version', () => {
  it('is brought up to date by starting: definitions and edits of formats 1 and 2', async () => {
    const definition = underNewId(LARKFIELD);
    const { ada } = await application(definition);
    const { timeZone: _, signUp: __, closed: ___, ...older } = definition;
    const old = {
      ...older,
      format: 1,
      roles: older.roles.map(({ privileges: ____, ...role }) => role),
    };
    await database()
      .update(snapshots)
      .set({ definition: old as unknown as typeof definition })
      .where(eq(snapshots.applicationId, definition.id));
    const role = definition.roles[0];
    const from = { ...role, name: 'Previous' };
    await database()
      .execute(sql`insert into edits (application_id, revision, edit, inverse, format, author) values
      (${definition.id}, 1, ${JSON.stringify({ do: 'changeRole', from, to: role })}::jsonb,
       ${JSON.stringify({ do: 'changeRole', from: role, to: from })}::jsonb, 1, ${ada})`);
    await database().transaction(upgradeStored);
    const draft = await draftOf(definition.id);
    expect(draft.definition).toMatchObject({ format: FORMAT, timeZone: 'UTC', signUp: false, closed: {} });
    const [edit] = await database().select().from(edits).orderBy(edits.revision);
    expect(edit?.edit).toMatchObject({ do: 'changeItem', list: 'roles' });
    // Done again, it changes nothing.
    await database().transaction(upgradeStored);
    expect((await database().select().from(edits).orderBy(edits.revision))[0]).toEqual(edit);
    await dropApplications();
  });

  it('is brought up to date where screens and entities were changed as wholes, and can be taken back', async () => {
    const definition = underNewId(LARKFIELD);
    const { ada } = await application(definition);
    const [area] = definition.areas;
    const [entity] = definition.entities;
    if (!area || !entity) throw new Error('The demo has both');
    const screen = { id: 's_new', name: 'New', address: 'a-new-one', sections: [] };
    const named = { ...screen, name: 'Newer', faces: [{ id: 'h_new', name: 'Face', sections: [] }] };
    const lines = [{ id: 'l_new', who: { kind: 'everyone' }, what: 'see' }];
    const renamed = { ...entity, name: 'Thing' };
    const of2: readonly (readonly [object, object])[] = [
      [
        { do: 'addScreen', area: area.id, at: 1, screen, lines },
        { do: 'removeScreen', area: area.id, at: 1, screen, lines },
      ],
      [
        { do: 'changeScreen', from: screen, to: named },
        { do: 'changeScreen', from: named, to: screen },
      ],
      [
        { do: 'together', edits: [{ do: 'changeItem', list: 'entities', from: entity, to: renamed }] },
        { do: 'together', edits: [{ do: 'changeItem', list: 'entities', from: renamed, to: entity }] },
      ],
      [
        { do: 'moveItem', list: 'entities', id: entity.id, from: 0, to: 2 },
        { do: 'moveItem', list: 'entities', id: entity.id, from: 2, to: 0 },
      ],
    ];
    for (const [n, [edit, inverse]] of of2.entries())
      await database()
        .execute(sql`insert into edits (application_id, revision, edit, inverse, format, author) values
        (${definition.id}, ${n + 1}, ${JSON.stringify(edit)}::jsonb, ${JSON.stringify(inverse)}::jsonb, 2, ${ada})`);
    await database().update(applications).set({ headRevision: 4 }).where(eq(applications.id, definition.id));
    await database().transaction(upgradeStored);
    const draft = await draftOf(definition.id);
    expect(draft.definition.areas[0]?.screens[1]).toEqual(named);
    expect(draft.definition.gates['s_new']).toEqual({ lines });
    expect(draft.definition.entities[2]).toEqual(renamed);
    // And all of it can be taken back.
    for (let n = 0; n < 4; n++) await change(definition.id, ada, 4 + n, 'undo');
    const back = (await draftOf(definition.id)).definition;
    expect([back.areas, back.entities]).toEqual([definition.areas, definition.entities]);
    await dropApplications();
  });
});
