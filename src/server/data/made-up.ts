import { madeUp, type PointedTo } from '@/core/making';
import { newId } from '@/core/model';
import { sql } from 'drizzle-orm';
import { patientDatabase } from '../database/client';
import { records } from '../database/schema';
import { Refused } from '../http/problem';
import { today } from '../today';
import type { DataAt } from './at';
import { whereOf } from './rows';

const MOST = 5000;

/** Fills an entity with made-up sample records: the same for the same seed. Live ones are never made up. */
export async function addMadeUp(at: DataAt, seed: number, count: number): Promise<void> {
  const { applicationId, kind, definition, entity } = at;
  if (kind !== 'sample') throw new Refused(422, 'sample-only', 'Only sample records can be generated.');
  if (count > MOST)
    throw new Refused(
      422,
      'how-many',
      `At most ${MOST.toLocaleString('en')} records can be generated at a time.`,
    );
  await patientDatabase().transaction(async (tx) => {
    const pointedTo: Record<string, string[]> = {};
    for (const { type } of entity.fields) {
      if (type.kind !== 'record' || pointedTo[type.entity]) continue;
      const target = definition.entities.find(({ id }) => id === type.entity);
      const rows = target
        ? await tx
            .select({ id: records.id })
            .from(records)
            .where(whereOf({ applicationId, kind, entity: target }))
            .orderBy(records.createdAt, records.id)
            .limit(2000)
        : [];
      pointedTo[type.entity] = rows.map(({ id }) => id);
    }
    const all = [
      ...madeUp(definition, entity, {
        seed,
        count,
        pointedTo: pointedTo satisfies PointedTo,
        today: today(),
      }),
    ];
    await tx.execute(sql`
      insert into ${records} (application_id, kind, entity, id, data, created_at)
      select ${applicationId}, ${kind}, ${entity.id}, id, data, now() + n * interval '1 microsecond'
      from unnest(${sql.param(all.map(() => newId()))}::text[], ${sql.param(all.map((one) => JSON.stringify(one)))}::jsonb[])
        with ordinality as new (id, data, n)`);
  });
}
