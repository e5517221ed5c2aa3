import { isDeepStrictEqual } from 'node:util';
import { and, eq, sql } from 'drizzle-orm';
import type { KnownRecord } from '@/core/access';
import { counted } from '@/core/edit';
import type { Id, Values } from '@/core/model';
import { database } from '../../database/client';
import { records } from '../../database/schema';
import type { RequestedChange } from './cases/case';
import { type Copy, putBack } from './copy';

/**
 * In words, how the copy's records are otherwise than they should be once something was done; puts them back. After one
 * deed only those are looked at that say that they were written, made or taken away: the rest is looked at without one.
 */
export async function keptOtherwise(copy: Copy, doing?: RequestedChange): Promise<string | undefined> {
  const of = eq(records.applicationId, copy.id);
  const rows = await database()
    .select({
      id: records.id,
      entity: records.entity,
      values: doing
        ? sql<Values>`case when ${records.version} > 1 or ${records.id} !~ '^Zr' then ${records.data} end`
        : records.data,
      version: records.version,
    })
    .from(records)
    .where(of);
  const known = new Set(copy.records.map(({ id }) => id));
  const made = rows.filter(({ id }) => !known.has(id));
  const stored = new Map(rows.map((row) => [row.id, row] as const));
  const otherwise = copy.records.filter(({ id, values }) => {
    const should = doing?.becomes?.has(id) ? doing.becomes.get(id)?.values : values;
    const row = stored.get(id);
    return !same(row && (row.values ?? values), should);
  });
  const makes = doing?.makes;
  const wrongly = made.filter(({ entity, values }) => !isMade({ entity, values }, makes));
  const lacks = makes && made.length === wrongly.length ? 1 : 0;
  const touched = [
    ...rows.filter(({ version }) => version > 1).map(({ id }) => id),
    ...made.map(({ id }) => id),
    ...copy.records.filter(({ id }) => !stored.has(id)).map(({ id }) => id),
  ];
  if (touched.length > 0) await putBack(copy, new Set(touched));
  if (otherwise.length + wrongly.length + lacks === 0) return undefined;
  const what = [
    otherwise.length > 0 &&
      `${counted(otherwise.length, 'record does', 'records do')} not have the expected values`,
    wrongly.length > 0 &&
      `${counted(wrongly.length, 'record was', 'records were')} created that should not exist`,
    lacks > 0 && 'the record that should have been created is missing',
  ].filter((part) => part !== false);
  return `Records: ${what.join(', and ')}.`;
}

/** Writes to a record of the copy as nobody did whom the server knows of. */
export async function writeBehind(copy: Copy, { id, values }: KnownRecord): Promise<void> {
  await database()
    .update(records)
    .set({ data: values, version: sql`${records.version} + 1` })
    .where(and(eq(records.applicationId, copy.id), eq(records.id, id)));
}

const isMade = (one: { readonly entity: Id; readonly values: Values }, makes: KnownRecord | undefined) =>
  makes !== undefined && makes.entity.id === one.entity && same(one.values, makes.values);

/** Nothing is the same as null. */
function same(a: Values | undefined, b: Values | undefined): boolean {
  if (!a || !b) return a === b;
  const ids = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...ids].every((id) => isDeepStrictEqual(a[id] ?? null, b[id] ?? null));
}
