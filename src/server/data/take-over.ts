import { sql } from 'drizzle-orm';
import { conversionsOf } from '@/core/converting';
import { patientDatabase } from '../database/client';
import { auditEvents, records } from '../database/schema';
import { draftOf } from '../drafts/draft';
import { Refused } from '../http/problem';
import { beginWriting, tellOfMany } from '../records/store';
import type { DataAt } from './at';

/**
 * Takes all sample records over as live ones, of every kind of record that the release has: where nothing is live yet.
 * Returns how many that were.
 */
export async function takeOverSamples(at: DataAt): Promise<number> {
  const { applicationId, kind, definition, workplace } = at;
  if (kind !== 'live')
    throw new Refused(422, 'live-only', 'Only sample records can be copied to live records.');
  const { definition: draft } = await draftOf(applicationId);
  if (conversionsOf(definition, draft).length > 0)
    throw new Refused(
      409,
      'other-types',
      'Some fields have a different type in the draft than in the release. Release the draft first, then copy the records.',
    );
  return patientDatabase().transaction(async (tx) => {
    await beginWriting(at, tx);
    const there = await tx.$count(
      records,
      sql`${records.applicationId} = ${applicationId} and ${records.kind} = 'live'`,
    );
    if (there > 0)
      throw new Refused(409, 'not-empty', 'There are already live records. To add more, import a CSV file.');
    const entities = definition.entities.map(({ id }) => id);
    const done = await tx.execute(sql`
      insert into ${records} (application_id, kind, entity, id, data, created_at)
      select application_id, 'live', entity, id, data, created_at from ${records}
      where application_id = ${applicationId} and kind = 'sample' and entity = any(${sql.param(entities)}::text[])`);
    await tellOfMany(at, done.rowCount ?? 0, tx);
    await tx.insert(auditEvents).values({
      applicationId,
      builderId: workplace.builder.id,
      what: 'samples-taken-over',
      detail: { count: String(done.rowCount ?? 0) },
    });
    return done.rowCount ?? 0;
  });
}
