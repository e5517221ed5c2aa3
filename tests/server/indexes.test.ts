import { sql } from 'drizzle-orm';
import pg from 'pg';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { listed } from '@/core/access';
import type { Definition, Entity, List, Values } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { databaseUrl } from '@/server/config.mjs';
import { database } from '@/server/database/client';
import { records, releases } from '@/server/database/schema';
import { indexesFor } from '@/server/records/indexes';
import { keepIndexes } from '@/server/records/keep-indexes';
import { listRecords, type Query } from '@/server/records/read';
import { application, dropApplications, emptyDatabase, put, scopeFor } from './setting';

const client = new pg.Client({ connectionString: databaseUrl() });
beforeAll(async () => {
  await emptyDatabase();
  await client.connect();
});
beforeEach(dropApplications);
afterAll(async () => {
  await keepIndexes(client);
  await client.end();
});

const MANY = 2400;
const BRANCHES = ['main-hall', 'mill-annexe'];

/** Loans that belong to items, with texts of any length and numbers that are none among them. */
const loan = (n: number): Values => ({
  loan_item: `i${n % 300}`,
  loan_borrower: n % 50 === 0 ? 'x'.repeat(9000) : `Borrower ${(n * 7919) % MANY}`,
  loan_fee: n % 40 === 0 ? 'nothing' : String(n % 500),
  loan_start: `2026-${String((n % 12) + 1).padStart(2, '0')}-01`,
});
const item = (n: number): Values => ({
  item_title: `Item ${n}`,
  item_branch: BRANCHES[Number(n % 100 === 0)] ?? '',
});

async function fill(definition: Definition, count: number): Promise<void> {
  await application(definition);
  for (const [entity, of, make] of [
    ['loan', 'l', loan],
    ['item', 'i', item],
  ] as const)
    await database()
      .insert(records)
      .values(
        Array.from({ length: count }, (_, n) => ({
          applicationId: definition.id,
          kind: 'live' as const,
          entity,
          id: `${of}${n}`,
          data: make(n),
        })),
      );
}

const everyone = (id: string, when?: object) => ({
  lines: [{ id, who: { kind: 'everyone' as const }, what: 'see' as const, ...when }],
});
/** All see all loans, and of items those of the annexe. */
const OPEN = {
  ...LARKFIELD,
  gates: {
    ...LARKFIELD.gates,
    [LARKFIELD.id]: everyone('o1'),
    loan: everyone('o2'),
    loan_item: everyone('o3'),
    loan_borrower: everyone('o4'),
    loan_fee: everyone('o5'),
    loan_start: everyone('o6'),
    item_title: everyone('o7'),
    item: everyone('o8', {
      when: { inUnit: { record: 'item_branch' }, unit: { value: 'mill-annexe' } },
    }),
  },
} as Definition;

const OF_ITEM: List = {
  kind: 'list',
  id: 'of_item',
  name: 'Loans',
  entity: 'loan',
  of: 'loan_item',
  columns: ['loan_borrower', 'loan_fee', 'loan_start'].map((field) => ({ id: `c_${field}`, field })),
  buttons: [],
};

/** With a list of the loans of an item, on the screen of that item. */
const WITH_LIST: Definition = {
  ...OPEN,
  areas: OPEN.areas.map((area) => ({
    ...area,
    screens: area.screens.map((screen) =>
      screen.id === 's_item'
        ? { ...screen, sections: [...screen.sections, { id: 'n_loans', name: 'Loans', parts: [OF_ITEM] }] }
        : screen,
    ),
  })),
};

const namesThere = async (): Promise<string[]> => {
  const { rows } = await database().execute<{ name: string }>(
    sql`select indexname as name from pg_indexes where indexname like 'zg_records_%' order by 1`,
  );
  return rows.map(({ name }) => name);
};

/** Does PostgreSQL read an index of that field for what is asked? What else it reads, it reads as it likes. */
async function readsBy(field: string, work: () => Promise<unknown>): Promise<boolean> {
  const used = async () => {
    await database().execute(sql`select pg_stat_force_next_flush()`);
    const { rows } = await database().execute<{ name: string; times: number }>(
      sql`select indexrelname as name, idx_scan::int as times from pg_stat_user_indexes
          where indexrelname like 'zg_records_%'`,
    );
    return new Map(rows.map(({ name, times }) => [name, times]));
  };
  const before = await used();
  for (let tried = 0; tried < 40; tried++) {
    // Each session tells of what it did once it does something again.
    await work();
    const now = await used();
    for (const [name, times] of now)
      if (times > (before.get(name) ?? 0) && (await definitionOf(name)).includes(`'${field}'::text`))
        return true;
    await new Promise((done) => setTimeout(done, 100));
  }
  return false;
}

async function definitionOf(index: string): Promise<string> {
  const { rows } = await database().execute<{ text: string }>(
    sql`select indexdef as text from pg_indexes where indexname = ${index}`,
  );
  return rows[0]?.text ?? '';
}

describe('indexes of live records', () => {
  it('find what doors and lists ask for, give the order, and change no answer', async () => {
    await fill(WITH_LIST, MANY);
    const scope = scopeFor(WITH_LIST, { kind: 'signed-in', assignments: [] });
    const { tree } = scope.access.compiled;
    const entityOf = (id: string): Entity => tree.need(id, 'rows').node;
    const page = { page: 1, size: 10 };
    const asked: readonly [string, string, Parameters<typeof listRecords>[2], Query][] = [
      ['the rows door', 'item_branch', true, page],
      ['what belongs to a record', 'loan_item', listed(scope.access, OF_ITEM, 'i7'), page],
      [
        'texts in order',
        'loan_borrower',
        true,
        { ...page, sort: { field: 'loan_borrower', descending: false } },
      ],
      [
        'the other way round',
        'loan_borrower',
        true,
        { ...page, sort: { field: 'loan_borrower', descending: true } },
      ],
      ['a number at least', 'loan_fee', true, { ...page, filter: 'record.fee >= 498' }],
    ];
    const ask = ([, field, filter, query]: (typeof asked)[number]) => {
      const entity = entityOf(field.replace(/_.*/, ''));
      return listRecords(scope, entity, filter, [], query);
    };
    const before = await Promise.all(asked.map(ask));
    for (const { total } of before) expect(total).toBeGreaterThan(0);
    const { made } = await keepIndexes(client);
    expect(made).toBe((await namesThere()).length);
    expect(made).toBeGreaterThan(5);
    for (const [n, one] of asked.entries()) {
      const reads = await readsBy(one[1], async () => expect(await ask(one)).toEqual(before[n]));
      expect([one[0], reads]).toEqual([one[0], true]);
    }
    expect(await keepIndexes(client)).toEqual({ made: 0, dropped: 0 });
  });

  it('come once there are many records, follow the release, and go when none asks for them', async () => {
    await fill(OPEN, 20);
    await keepIndexes(client);
    expect(await namesThere()).toEqual([]);
    for (let n = 0; n < MANY; n++) if (n >= 20) await put(OPEN, 'loan', `l${n}`, loan(n));
    await keepIndexes(client);
    const names = await namesThere();
    const of = (definition: Definition) =>
      indexesFor(definition.id, definition)
        .filter(({ entity }) => entity === 'loan')
        .map(({ name }) => name)
        .sort();
    expect(names).toEqual(of(OPEN));
    await database().update(releases).set({ definition: WITH_LIST });
    await keepIndexes(client);
    expect(await namesThere()).toEqual(of(WITH_LIST));
    expect(of(WITH_LIST)).not.toEqual(names);
    await dropApplications();
    await keepIndexes(client);
    expect(await namesThere()).toEqual([]);
  });

  it('are made anew where one was broken off, and by one at a time', async () => {
    await fill(OPEN, MANY);
    const { made } = await keepIndexes(client);
    const [first = ''] = await namesThere();
    await database().execute(
      sql`update pg_index set indisvalid = false where indexrelid = ${first}::regclass`,
    );
    expect(await keepIndexes(client)).toEqual({ made: 1, dropped: 1 });
    const other = new pg.Client({ connectionString: databaseUrl() });
    await other.connect();
    await other.query('select pg_advisory_lock(13)');
    await dropApplications();
    expect(await keepIndexes(client)).toEqual({ made: 0, dropped: 0 });
    await other.query('select pg_advisory_unlock(13)');
    await other.end();
    expect(await keepIndexes(client)).toEqual({ made: 0, dropped: made });
  });
});
