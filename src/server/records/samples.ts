import { and, asc, eq } from 'drizzle-orm';
import { database } from '../database/client';
import { records } from '../database/schema';
import type { StoredRecord } from './read';

/** The first sample records of an entity, whole. */
export const sampleRecords = (applicationId: string, entity: string, most: number): Promise<StoredRecord[]> =>
  database()
    .select({ id: records.id, version: records.version, values: records.data })
    .from(records)
    .where(
      and(eq(records.applicationId, applicationId), eq(records.kind, 'sample'), eq(records.entity, entity)),
    )
    .orderBy(asc(records.createdAt), asc(records.id))
    .limit(most);
