import { and, asc, eq, sql } from 'drizzle-orm';
import { database } from '../database/client';
import { records, type RecordKind } from '../database/schema';
import { draftOf } from '../drafts/draft';
import { notThere } from '../http/problem';

/** Records of an entity by label, for choosing one to look at. Builders may see all samples. */
export async function samplesOf(
  applicationId: string,
  kind: RecordKind,
  entityId: string,
  q: string,
): Promise<{ id: string; label: string; more: string }[]> {
  const { definition } = await draftOf(applicationId);
  const entity = definition.entities.find((one) => one.id === entityId);
  if (!entity) throw notThere();
  // A second field tells records of the same name apart.
  const second = entity.fields.find((one) => one.id !== entity.labelField && one.type.kind === 'text');
  const words = q.trim().toLowerCase();
  const rows = await database()
    .select({ id: records.id, values: records.data })
    .from(records)
    .where(
      and(
        eq(records.applicationId, applicationId),
        eq(records.kind, kind),
        eq(records.entity, entityId),
        words
          ? sql`strpos(lower(concat_ws(' ', ${records.data} ->> ${entity.labelField}::text, ${records.data} ->> ${second?.id ?? ''}::text)), ${words}) > 0`
          : undefined,
      ),
    )
    .orderBy(asc(records.createdAt), asc(records.id))
    .limit(100);
  return rows.map(({ id, values }) => ({
    id,
    label: String(values[entity.labelField] ?? id),
    more: second ? String(values[second.id] ?? '') : '',
  }));
}
