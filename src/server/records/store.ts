import { and, eq, sql, type SQL } from 'drizzle-orm';
import type { Entity, Id, Values } from '@/core/model';
import type { Executor } from '../database/client';
import { applications, paneRecords, panes, records, type RecordKind } from '../database/schema';
import { Refused } from '../http/problem';
import { notifyChange } from '../notifications/notices';

/** Where records are: of one application, sample or live; perhaps as one pane of the look bench has them. */
export interface Place {
  readonly applicationId: string;
  readonly kind: RecordKind;
  /** The id of a pane, whose changes lie over the stored records. */
  readonly pane?: string | undefined;
  /** Of live records: the release by which it is decided. Nothing is written by one that is no longer in force. */
  readonly release?: number | undefined;
}

/** What to read records from, to stand after `from` under the name of `records`, or another. */
export function recordsOf({ applicationId, kind, pane }: Place): SQL {
  if (pane === undefined) return sql`records`;
  return sql`(
    select application_id, kind, entity, id, version, data, created_at from records
    where application_id = ${applicationId} and kind = ${kind} and not exists (
      select 1 from pane_records over
      where over.pane_id = ${pane} and over.entity = records.entity and over.id = records.id)
    union all
    select ${applicationId}::text, ${kind}::text, entity, id, version, data, created_at from pane_records
    where pane_id = ${pane} and data is not null)`;
}

/** As `recordsOf`, under its own name. */
export const namedRecords = (place: Place): SQL =>
  place.pane === undefined ? sql`records` : sql`${recordsOf(place)} records`;

/** Condition of being that record, in the table itself. */
export const isRecord = ({ applicationId, kind }: Place, entity: Id, id: Id): SQL | undefined =>
  and(
    eq(records.applicationId, applicationId),
    eq(records.kind, kind),
    eq(records.entity, entity),
    eq(records.id, id),
  );

/** Whoever writes live records holds this lock with others; a release that converts them holds it alone. */
const writing = (applicationId: string) => sql`hashtextextended(${applicationId}, 12)`;

/** Waits until nobody writes live records of the application, and lets nobody begin until the transaction ends. */
export async function waitForWriters(applicationId: string, tx: Executor): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(${writing(applicationId)})`);
}

/**
 * Before anything is written: a pane is locked, and known to be in use; stored records are locked one by one. By a
 * release that is no longer in force nothing is written: its fields may hold something else by now.
 */
export async function beginWriting({ applicationId, pane, release }: Place, tx: Executor): Promise<void> {
  if (release !== undefined) {
    await tx.execute(sql`select pg_advisory_xact_lock_shared(${writing(applicationId)})`);
    const [now] = await tx
      .select({ release: applications.release })
      .from(applications)
      .where(eq(applications.id, applicationId));
    if (now?.release !== release)
      throw new Refused(
        409,
        'released-meanwhile',
        'Nothing was saved, because the application has changed in the meantime. Reload the page and try again.',
      );
  }
  if (pane !== undefined)
    await tx
      .update(panes)
      .set({ usedAt: sql`now()` })
      .where(eq(panes.id, pane));
}

/** Stores a new record. */
export async function insertRecord(
  place: Place,
  entity: Entity,
  { id, version, values: data }: { readonly id: Id; readonly version: number; readonly values: Values },
  tx: Executor,
): Promise<void> {
  const { applicationId, kind, pane } = place;
  if (pane === undefined)
    await tx.insert(records).values({ applicationId, kind, entity: entity.id, id, version, data });
  else await tx.insert(paneRecords).values({ paneId: pane, entity: entity.id, id, version, data });
}

/** Stores a record's new values, or (null) that it is gone. `version` is the one that it had until now. */
export async function putRecord(
  place: Place,
  entity: Entity,
  id: Id,
  version: number,
  data: Values | null,
  tx: Executor,
): Promise<void> {
  if (place.pane !== undefined) return putOver(place, place.pane, entity, id, version, data, tx);
  const where = isRecord(place, entity.id, id);
  if (data === null) await tx.delete(records).where(where);
  else
    await tx
      .update(records)
      .set({ data, version: version + 1, updatedAt: sql`now()` })
      .where(where);
}

async function putOver(
  place: Place,
  paneId: string,
  entity: Entity,
  id: Id,
  version: number,
  data: Values | null,
  tx: Executor,
): Promise<void> {
  const [stored] = await tx
    .select({ version: records.version, createdAt: records.createdAt })
    .from(records)
    .where(isRecord(place, entity.id, id));
  await tx
    .insert(paneRecords)
    .values({
      paneId,
      entity: entity.id,
      id,
      version: version + 1,
      data,
      over: stored?.version ?? null,
      // It keeps its place in lists.
      ...(stored && { createdAt: stored.createdAt }),
    })
    .onConflictDoUpdate({
      target: [paneRecords.paneId, paneRecords.entity, paneRecords.id],
      set: { data, version: version + 1 },
    });
}

/** So many live records that are written at once may ask for indexes (`keep-indexes.ts`). */
const MANY = 1000;

/** Tells the keeper of indexes, once the transaction is stored, that many live records were written. */
export async function tellOfMany({ applicationId, kind }: Place, count: number, tx: Executor): Promise<void> {
  if (kind === 'live' && count >= MANY) await notifyChange(tx, applicationId, 'records');
}
