import { accessOf, compile } from '@/core';
import { rightNow } from '@/core/access';
import { sql } from 'drizzle-orm';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { applications, records } from '@/server/database/schema';
import { listRecords, type RecordScope } from '@/server/records/read';
import type { Measure } from './measure';
import { inTurns } from './rows';

const HIDDEN = 20_000;
const ID = 'benchhidden';

/**
 * Does the time of a filter tell of records behind a door? The same filter and search, where 20,000 hidden records
 * match, and where none does: by how much do the medians differ?
 */
export async function measureHidden(): Promise<Measure[]> {
  const on = database();
  const door = { compare: '=' as const, left: { record: 'item_branch' }, right: { value: 'main-hall' } };
  const definition = {
    ...LARKFIELD,
    gates: {
      ...LARKFIELD.gates,
      item: { lines: [{ id: 'a', who: { kind: 'everyone' as const }, what: 'see' as const, when: door }] },
      item_title: { lines: [{ id: 'b', who: { kind: 'everyone' as const }, what: 'see' as const }] },
    },
  };
  await on.insert(applications).values({ id: ID, slug: ID, name: 'Hidden' });
  const stored = (n: number, branch: string) => ({
    applicationId: ID,
    kind: 'live' as const,
    entity: 'item',
    id: `h${n}`,
    // Those that are open match both ways.
    data: {
      item_title:
        branch === 'main-hall' ? `the secret blue and secret blux ${n}` : `the secret blue ewer ${n}`,
      item_branch: branch,
    },
  });
  for (let n = 0; n < HIDDEN; n += 2000)
    await on
      .insert(records)
      .values(
        Array.from({ length: 2000 }, (_, m) => stored(n + m, m % 200 === 0 ? 'main-hall' : 'mill-annexe')),
      );
  await on.execute(sql`analyze ${records}`);
  const access = accessOf(compile(definition), { kind: 'signed-out' }, rightNow());
  const scope: RecordScope = { applicationId: ID, kind: 'live', access };
  const entity = access.compiled.tree.need('item', 'rows').node;
  const asking = (words: string) => () =>
    listRecords(scope, entity, true, entity.fields, {
      filter: `record.title contains "${words}"`,
      page: 1,
      size: 25,
    });
  try {
    // The same length, and as far along in the text: all that differs is whether the hidden ones match.
    const [matching = 1, none = 1] = await inTurns([asking('secret blue'), asking('secret blux')], 41);
    const [high, low] = [Math.max(matching, none), Math.min(matching, none)];
    return [
      {
        name: 'a filter that 20,000 hidden records match, or none does',
        ours: matching,
        against: none,
        unit: 'ms',
        ratio: high / low,
        most: 1.05,
      },
    ];
  } finally {
    await on.execute(sql`delete from ${applications} where id = ${ID}`);
  }
}
