import { and, eq, isNotNull, sql } from 'drizzle-orm';
import type pg from 'pg';
import { drizzle } from 'drizzle-orm/node-postgres';
import type { Executor } from '../database/client';
import * as schema from '../database/schema';
import { INDEX_PREFIX, indexesFor } from './indexes';

const { applications, records, releases } = schema;

/** An entity has indexes of its own once it has so many live records: with fewer, reading all is as quick. */
const FROM_RECORDS = 2000;
/** Every one costs each write and each question a little, whichever application it is of. */
const MOST_INDEXES = 200;

/** What was done: how many indexes were made and dropped. */
interface IndexChanges {
  readonly made: number;
  readonly dropped: number;
}

/**
 * Makes the indexes that the releases in force ask for, and drops those that none asks for any more, one after the other
 * and without blocking who reads or writes (CREATE INDEX CONCURRENTLY). The connection is of the role that owns the
 * tables, and is in no transaction. One at a time does it, however many try. Throws what the database refuses.
 */
export async function keepIndexes(client: pg.Client, signal?: AbortSignal): Promise<IndexChanges> {
  const on: Executor = drizzle(client, { schema });
  const { rows } = await on.execute<{ mine: boolean }>(sql`select pg_try_advisory_lock(13) as mine`);
  if (!rows[0]?.mine) return { made: 0, dropped: 0 };
  try {
    const wanted = await wantedIndexes(on);
    const there = await indexesThere(on);
    let [made, dropped] = [0, 0];
    for (const [name, valid] of there) {
      if (signal?.aborted) break;
      // One that was broken off while it was made is of no use.
      if (wanted.has(name) && valid) continue;
      await on.execute(sql`drop index concurrently if exists ${sql.identifier(name)}`);
      there.delete(name);
      dropped++;
    }
    for (const [name, make] of wanted) {
      if (signal?.aborted) break;
      if (there.has(name)) continue;
      await on.execute(sql.raw(make));
      made++;
    }
    if (made > 0) await on.execute(sql`analyze ${records}`);
    return { made, dropped };
  } finally {
    await on.execute(sql`select pg_advisory_unlock(13)`);
  }
}

/** What makes each index that is wanted, by its name; those of the entities with most records first. */
async function wantedIndexes(on: Executor): Promise<ReadonlyMap<string, string>> {
  const large = await on
    .select({
      applicationId: records.applicationId,
      entity: records.entity,
      count: sql<number>`count(*)::int`,
    })
    .from(records)
    .where(eq(records.kind, 'live'))
    .groupBy(records.applicationId, records.entity)
    .having(sql`count(*) >= ${FROM_RECORDS}`)
    .orderBy(sql`count(*) desc`);
  const definitions = await on
    .select({ id: applications.id, definition: releases.definition })
    .from(applications)
    .innerJoin(
      releases,
      and(eq(releases.applicationId, applications.id), eq(releases.number, applications.release)),
    )
    .where(isNotNull(applications.release));
  const { rows: modules } = await on.execute(sql`select 1 from pg_extension where extname = 'pg_trgm'`);
  const wanted = large.flatMap(({ applicationId, entity }) => {
    const definition = definitions.find(({ id }) => id === applicationId)?.definition;
    const all = definition ? indexesFor(applicationId, definition) : [];
    return all.filter((one) => one.entity === entity && (!one.ofWords || modules.length > 0));
  });
  return new Map(wanted.slice(0, MOST_INDEXES).map(({ name, make }) => [name, make]));
}

/** The indexes of this kind that there are, and whether each was made to its end. */
async function indexesThere(on: Executor): Promise<Map<string, boolean>> {
  const { rows } = await on.execute<{ name: string; valid: boolean }>(sql`
    select relname as name, indisvalid as valid from pg_index join pg_class on pg_class.oid = indexrelid
    where indrelid = 'records'::regclass and starts_with(relname, ${INDEX_PREFIX})`);
  return new Map(rows.map(({ name, valid }) => [name, valid]));
}
