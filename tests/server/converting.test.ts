import { and, asc, eq } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { viewerOfRole } from '@/core';
import type { Definition, ValueType } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { keptValues, records, type RecordKind } from '@/server/database/schema';
import { change } from '@/server/drafts/draft';
import { release } from '@/server/releasing/release';
import { review } from '@/server/releasing/review';
import { application, dropApplications, emptyDatabase, put, scopeFor, underNewId } from './setting';
import { change as write } from './writing';

const text: ValueType = { kind: 'text' };
const whole: ValueType = { kind: 'number', decimals: 0 };

let definition: Definition;
let ada: string;
beforeAll(emptyDatabase);
beforeEach(async () => {
  await dropApplications();
  definition = underNewId(LARKFIELD);
  ({ ada } = await application(definition));
  for (const kind of ['sample', 'live'] as const)
    for (const [id, year] of Object.entries({ a: '1904', b: 'about 1900', c: null, d: '1,850' }))
      await put(
        definition,
        'item',
        id,
        { item_title: `Piece ${id}`, item_accession: id, item_year: year },
        kind,
      );
});

const years = async (kind: RecordKind): Promise<unknown[]> => {
  const rows = await database()
    .select({ data: records.data })
    .from(records)
    .where(and(eq(records.applicationId, definition.id), eq(records.kind, kind)))
    .orderBy(asc(records.id));
  return rows.map(({ data }) => data['item_year'] ?? null);
};
const ORIGINAL = ['1904', 'about 1900', null, '1,850'];
const TURNED = ['1904', null, null, '1850'];
const turn = (revision: number, from: ValueType, to: ValueType) =>
  change(definition.id, ada, revision, {
    edit: { do: 'changeElement', id: 'item_year', from: { type: from }, to: { type: to } },
  });

describe('records whose field holds another type', () => {
  it('follow the draft, where they are samples: also back, by undo', async () => {
    await turn(0, text, whole);
    expect(await years('sample')).toEqual(TURNED);
    expect(await years('live')).toEqual(ORIGINAL);
    await change(definition.id, ada, 1, 'undo');
    expect(await years('sample')).toEqual(ORIGINAL);
    await change(definition.id, ada, 2, 'redo');
    // What was written since is not overwritten by what was before.
    await database()
      .update(records)
      .set({ data: { item_year: '1777' } })
      .where(and(eq(records.kind, 'sample'), eq(records.id, 'b')));
    await change(definition.id, ada, 3, 'undo');
    expect(await years('sample')).toEqual(['1904', '1777', null, '1,850']);
  });

  it('follow the release, where they are live: told before, with examples; and back with an older one', async () => {
    await turn(0, text, whole);
    const { data } = await review(definition.id);
    expect(data).toMatchObject([
      { about: 'Year (Items)', examples: [{ record: 'Piece b', value: 'about 1900' }] },
    ]);
    expect(data[0]?.said.join(' ')).toContain(
      '3 records have a value: 2 can be converted, 1 cannot be converted.',
    );
    expect(await years('live')).toEqual(ORIGINAL);
    const told: number[] = [];
    await release(definition.id, ada, 1, {}, (done) => told.push(done));
    expect(told).toEqual([4]);
    expect(await years('live')).toEqual(TURNED);
    await turn(1, whole, text);
    expect((await review(definition.id)).data[0]?.said.join(' ')).toContain('earlier value');
    await release(definition.id, ada, 2);
    expect(await years('live')).toEqual(ORIGINAL);
  });

  it('are as they were where the release is stopped; none of it is kept', async () => {
    await turn(0, text, whole);
    const stopped = AbortSignal.abort();
    await expect(release(definition.id, ada, 1, {}, undefined, stopped)).rejects.toThrow();
    expect(await years('live')).toEqual(ORIGINAL);
    expect(await database().$count(keptValues, eq(keptValues.kind, 'live'))).toBe(0);
  });

  it('are not written by a release that is no longer in force', async () => {
    const scope = { ...scopeFor(definition, viewerOfRole('registrar')), release: 1 };
    const entity = definition.entities[0];
    if (!entity) throw new Error('The demo has items');
    await turn(0, text, whole);
    await release(definition.id, ada, 1);
    await expect(write(scope, { keep: true }, entity, 'a', { item_year: '1905' })).rejects.toMatchObject({
      code: 'released-meanwhile',
    });
    expect(await years('live')).toEqual(TURNED);
  });
});
