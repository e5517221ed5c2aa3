import { accessOf, compile } from '@/core';
import { rightNow } from '@/core/access';
import { sql } from 'drizzle-orm';
import { LARKFIELD } from '@/demo/definition';
import { demoRecords } from '@/demo/records';
import { database } from '@/server/database/client';
import { applications, records } from '@/server/database/schema';
import { listRecords, type RecordScope } from '@/server/records/read';
import type { Measure } from './measure';

const COUNT = 100_000;
const ID = 'benchrows';

/** Mean milliseconds of each piece of work, taken in turns so that what slows the machine slows both. */
export async function inTurns(works: readonly (() => Promise<unknown>)[], times: number): Promise<number[]> {
  for (const work of works) await work();
  const spent = works.map((): number[] => []);
  for (let n = 0; n < times; n++)
    for (const [m, work] of works.entries()) {
      const start = performance.now();
      await work();
      spent[m]?.push(performance.now() - start);
    }
  return spent.map((one) => one.sort((a, b) => a - b)[Math.floor(one.length / 2)] ?? 0);
}

/** A page of 50 from 100,000 records with a rows door, against the same page by hand-written SQL. */
export async function measureRows(): Promise<Measure[]> {
  const on = database();
  const definition = {
    ...LARKFIELD,
    gates: {
      ...LARKFIELD.gates,
      item: {
        lines: [
          {
            id: 'a',
            who: { kind: 'role' as const, role: 'registrar' },
            what: 'edit' as const,
            when: { inUnit: { record: 'item_branch' }, unit: { value: 'mill-annexe' } },
          },
          {
            id: 'b',
            who: { kind: 'everyone' as const },
            what: 'block' as const,
            when: { compare: '=' as const, left: { record: 'item_condition' }, right: { value: 'fragile' } },
          },
        ],
      },
    },
  };
  await on.insert(applications).values({ id: ID, slug: ID, name: 'Rows' });
  const items = demoRecords(3, { items: 2000, loans: 0, reports: 0 });
  for (let n = 0; n < COUNT; n += 2000)
    await on.insert(records).values(
      items.map(({ entity, values }, m) => ({
        applicationId: ID,
        kind: 'live' as const,
        entity,
        id: `r${n + m}`,
        data: values,
        createdAt: new Date(Date.UTC(2026, 0, 1) + (n + m) * 1000),
      })),
    );
  await on.execute(sql`analyze ${records}`);
  const access = accessOf(
    compile(definition),
    { kind: 'signed-in', assignments: [{ role: 'registrar' }] },
    rightNow(),
  );
  const scope: RecordScope = { applicationId: ID, kind: 'live', access };
  const entity = access.compiled.tree.need('item', 'rows').node;
  const ours = () => listRecords(scope, entity, true, entity.fields, { page: 3, size: 50 });
  const where = sql`application_id = ${ID} and kind = 'live' and entity = 'item'
    and data ->> 'item_branch' = 'mill-annexe' and coalesce(data ->> 'item_condition' <> 'fragile', false)`;
  const byHand = () =>
    Promise.all([
      on.execute(
        sql`select id, version, data from records where ${where} order by created_at, id limit 50 offset 100`,
      ),
      on.execute(sql`select count(*) from records where ${where}`),
    ]);
  try {
    const [page, [hand]] = [await ours(), await byHand()];
    if (JSON.stringify(page.records.map(({ id }) => id)) !== JSON.stringify(hand.rows.map(({ id }) => id)))
      throw new Error('The two pages are not the same');
    const [a = 0, b = 1] = await inTurns([ours, byHand], 15);
    return [
      {
        name: 'page of 50 of 100,000 records with a rows door',
        ours: a,
        against: b,
        unit: 'ms',
        ratio: a / b,
        most: 1.3,
      },
    ];
  } finally {
    await on.execute(sql`delete from ${applications} where id = ${ID}`);
  }
}
