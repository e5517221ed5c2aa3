import { createServer } from 'node:net';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { applicationFrom, guessSheets, namesOf, recordsFrom, type SheetChoice } from '@/core/making';
import { sheetsFrom, tablesIn } from '@/server/making/postgres';

process.env['POSTGRES_HOSTS'] = '127.0.0.1';
const own = new URL(process.env['DATABASE_URL'] ?? '');
const NAME = `zinc_second_${process.pid}`;
const second = new URL(own);
second.pathname = `/${NAME}`;
const url = second.href;

const run = async (at: URL, ...statements: string[]): Promise<void> => {
  const client = new pg.Client({ connectionString: at.href });
  await client.connect();
  try {
    for (const one of statements) await client.query(one);
  } finally {
    await client.end();
  }
};

beforeAll(async () => {
  await run(own, `create database ${NAME}`);
  await run(
    second,
    `create type stage as enum ('open', 'done')`,
    `create table boats (id int primary key, name text not null, length numeric(6, 1), since date, sound boolean)`,
    `create schema yard`,
    `create table yard."Odd ""jobs""" (no serial primary key, boat int references boats (id), state stage not null,
       told timestamptz, price money, photo bytea, remark text)`,
    `create view many as select n as id from generate_series(1, 200001) as n`,
    `create table nothing (id int)`,
    `insert into boats values (7, 'Elm', 12.5, '2019-04-01', true), (9, 'Ash', 8, null, false), (11, 'Oak', null, '2020-02-29', null)`,
    `insert into yard."Odd ""jobs""" (boat, state, told, price, photo, remark) values
       (9, 'open', '2026-11-26 23:30+00', '12.50', '\\x00', 'a line'), (7, 'done', null, null, null, null), (9, 'open', null, null, null, 'x')`,
  );
});
afterAll(() => run(own, `drop database ${NAME} with (force)`));

/** Something else that listens: it answers as no database does, and is told apart from nothing by nobody. */
const silent = { port: 0, server: createServer((socket) => socket.end('SSH-2.0-x\r\n')) };
beforeAll(async () => {
  await new Promise<void>((done) => silent.server.listen(0, '127.0.0.1', done));
  silent.port = (silent.server.address() as { port: number }).port;
});
afterAll(() => silent.server.close());
const UNREACHABLE =
  /^No PostgreSQL database answers at 127\.0\.0\.1, port \d+\. Look at the host, the port, and sslmode\.$/;

const refused = (detail: RegExp) => ({ status: 422, detail: expect.stringMatching(detail) as string });
const JOBS = { schema: 'yard', name: 'Odd "jobs"' };

describe('another PostgreSQL database', () => {
  it('tells its tables and views, and becomes kinds of data whose columns are known and point to each other', async () => {
    const found = await tablesIn(url);
    expect(found.map(({ schema, name }) => `${schema}.${name}`)).toEqual([
      'public.boats',
      'public.many',
      'public.nothing',
      'yard.Odd "jobs"',
    ]);
    const sheets = await sheetsFrom(url, [{ schema: 'public', name: 'boats' }, JOBS]);
    const guessed = guessSheets(sheets, '2026-11-26');
    expect(guessed.map((columns) => columns.map(({ as }) => as.kind))).toEqual([
      ['number', 'text', 'number', 'date', 'boolean'],
      ['number', 'points', 'choice', 'date', 'money', 'left', 'text'],
    ]);
    expect(guessed[1]?.[1]?.as).toEqual({ kind: 'points', sheet: 0, column: 0 });
    const choices = guessed.map((columns, n): SheetChoice => ({
      ...namesOf(sheets[n]?.name ?? ''),
      columns: columns.map(({ name, as, needed }) => ({ name, as, needed })),
    }));
    const manners = { name: 'Yard', language: 'en-GB', currency: 'GBP', timeZone: 'UTC' };
    const made = applicationFrom(manners, sheets, choices);
    const [elm, ash, , job] = [...recordsFrom(made, sheets, choices, '2026-11-26')];
    const boat = made.definition.entities[1]?.fields.find(({ type }) => type.kind === 'record');
    expect(Object.values(elm?.values ?? {})).toEqual(
      expect.arrayContaining(['Elm', '12.5', '2019-04-01', true]),
    );
    expect(job?.values[boat?.id ?? '']).toBe(ash?.id);
    expect(Object.values(job?.values ?? {})).toEqual(
      expect.arrayContaining(['2026-11-26', '12.5', 'a line']),
    );
  });

  it('gives floating-point columns as numbers, and empty tables are left out where that is asked', async () => {
    await run(
      second,
      `create table masses (id int, grams real, tons double precision)`,
      `insert into masses values (1, 0.1, 1e-3), (2, 'NaN', 'Infinity'), (3, 2.5, 12345.678)`,
    );
    const [empty, masses] = ['nothing', 'masses'].map((name) => ({ schema: 'public', name }));
    const tables = [empty, masses].flatMap((one) => one ?? []);
    const sheets = await sheetsFrom(url, tables, { skipEmpty: true });
    expect(sheets.map(({ name }) => name)).toEqual(['masses']);
    expect(guessSheets(sheets, '2026-11-26')[0]?.map(({ as }) => as)).toEqual([
      { kind: 'number', decimals: 0 },
      { kind: 'number', decimals: 1 },
      { kind: 'number', decimals: 3 },
    ]);
    expect(sheets[0]?.rows[1]?.cells).toEqual(['2', '', '']);
  });

  it('is only read: what it is asked to do there fails', async () => {
    await run(
      second,
      `create function spoils() returns int language plpgsql as $$ begin delete from boats; return 1; end $$`,
      `create view spoiling as select spoils() as id`,
    );
    await expect(sheetsFrom(url, [{ schema: 'public', name: 'spoiling' }])).rejects.toMatchObject(
      refused(/read-only/),
    );
    expect((await sheetsFrom(url, [{ schema: 'public', name: 'boats' }]))[0]?.rows).toHaveLength(3);
  });

  it.each<[string, (at: URL) => string, RegExp]>([
    ['what is no connection', () => 'boats', /Enter the connection string as/],
    ['another protocol', () => 'https://127.0.0.1/x', /Enter the connection string as/],
    [
      'a host that is not allowed',
      (at) => at.href.replace(at.hostname, '10.1.2.3'),
      /not allowed to connect to 10\.1\.2\.3/,
    ],
    ['a host in disguise', (at) => `${at.href}?host=10.1.2.3`, /contains host, which is not supported/],
    [
      'no password, which would be the server’s own',
      (at) => at.href.replace(`:${at.password}@`, '@'),
      /user and a password/,
    ],
    ['a wrong password', (at) => at.href.replace(at.password, 'wrong'), /rejected the user or the password/],
    ['nothing at that port', (at) => at.href.replace(`:${at.port}`, ':1'), UNREACHABLE],
    ['what is no PostgreSQL', (at) => at.href.replace(`:${at.port}`, `:${silent.port}`), UNREACHABLE],
    ['an escape of nothing', (at) => at.href.replace(NAME, 'a%00b'), /escape in it/],
    ['an escape that is none', (at) => at.href.replace(at.username, 'a%zz'), /escape in it/],
    ['an escape that is no text', (at) => at.href.replace(at.password, '%ff%fe'), /escape in it/],
    ['no such database', (at) => at.href.replace(NAME, 'nowhere'), /database nowhere does not exist/],
  ])('refuses %s, with a mend', async (_, of, says) => {
    await expect(tablesIn(of(second))).rejects.toMatchObject(refused(says));
  });

  it('is on no host that is not named, this machine included', async () => {
    process.env['POSTGRES_HOSTS'] = '';
    await expect(tablesIn(url)).rejects.toMatchObject(
      refused(/not allowed to connect to 127\.0\.0\.1.*now: none/),
    );
    process.env['POSTGRES_HOSTS'] = '127.0.0.1';
  });

  it.each<[string, { schema: string; name: string }, RegExp]>([
    [
      'a table that is not there',
      { schema: 'public', name: 'boats; drop table boats' },
      /public\.boats; drop table boats does not exist/,
    ],
    ['one without rows', { schema: 'public', name: 'nothing' }, /has no rows/],
    ['one with too many', { schema: 'public', name: 'many' }, /more than 200,000 rows/],
  ])('refuses %s', async (_, table, says) => {
    await expect(sheetsFrom(url, [table])).rejects.toMatchObject(refused(says));
  });
});
