import { and, eq, sql } from 'drizzle-orm';
import {
  type EntityField,
  type Id,
  newId,
  readValue,
  unitAndBelow,
  type Value,
  type Values,
} from '@/core/model';
import { database, type Executor } from '../database/client';
import { records } from '../database/schema';
import { notThere, Refused, type FieldProblem } from '../http/problem';
import { beginWriting, insertRecord, isRecord, putRecord } from '../records/store';
import { isPointedTo } from '../records/write';
import { auditData, type DataAt } from './at';
import type { Written } from '@/contract/records';

/** Adds a record with these values; fields that are not here start as the definition says. */
export async function addRow(at: DataAt, written: Written): Promise<{ readonly id: Id }> {
  const initial = Object.fromEntries(
    at.entity.fields.flatMap(({ id, initial: value }) => (value === undefined ? [] : [[id, value] as const])),
  );
  return database().transaction(async (tx) => {
    await beginWriting(at, tx);
    const read = await readAll(at, at.entity.fields, { ...initial, ...written }, tx);
    const id = newId();
    await insertRecord(at, at.entity, { id, version: 1, values: read }, tx);
    await auditData(at, 'data-added', { record: id }, tx);
    return { id };
  });
}

/** A record as its reader saw it. */
interface Seen {
  readonly id: Id;
  readonly version: number;
}

/** Gives records the same values in some fields, all of them or none; each as it was seen. */
export async function changeRows(at: DataAt, chosen: readonly Seen[], written: Written): Promise<void> {
  const fields = at.entity.fields.filter((field) => field.id in written);
  if (fields.length !== Object.keys(written).length)
    throw new Refused(422, 'no-such-field', 'One of these fields no longer exists. Reload the page.');
  await database().transaction(async (tx) => {
    await beginWriting(at, tx);
    const read = await readAll(at, fields, written, tx);
    for (const { id, version } of chosen) {
      const stored = await lockedRow(at, id, version, tx);
      await putRecord(at, at.entity, id, stored.version, { ...stored.values, ...read }, tx);
    }
    const detail = { count: String(chosen.length), fields: fields.map((one) => one.id).join(' ') };
    await auditData(at, 'data-changed', detail, tx);
  });
}

/** Deletes records, all of them or none: not one that others point to, but for those that go with it. */
export async function deleteRows(at: DataAt, chosen: readonly Seen[]): Promise<void> {
  await database().transaction(async (tx) => {
    await beginWriting(at, tx);
    for (const { id, version } of chosen) {
      const { version: now } = await lockedRow(at, id, version, tx);
      await putRecord(at, at.entity, id, now, null, tx);
    }
    for (const { id } of chosen)
      if (await isPointedTo(at, at.definition, at.entity, id, tx))
        throw new Refused(
          409,
          'in-use',
          'Nothing was deleted, because another record refers to one of these records.',
        );
    await auditData(at, 'data-deleted', { count: String(chosen.length) }, tx);
  });
}

async function lockedRow(
  at: DataAt,
  id: Id,
  seen: number,
  tx: Executor,
): Promise<{ readonly version: number; readonly values: Values }> {
  const [stored] = await tx
    .select({ version: records.version, values: records.data })
    .from(records)
    .where(isRecord(at, at.entity.id, id))
    .for('update');
  if (!stored) throw notThere();
  if (stored.version !== seen)
    throw new Refused(
      409,
      'changed-meanwhile',
      'Someone else has changed this record. Reload it and try again.',
    );
  return stored;
}

/** Reads what was written for these fields, as the application itself would; all that is wrong is told at once. */
async function readAll(
  at: DataAt,
  fields: readonly EntityField[],
  written: Written,
  tx: Executor,
): Promise<Record<Id, Value | null>> {
  const errors: FieldProblem[] = [];
  const values: Record<Id, Value | null> = {};
  for (const field of fields) {
    const reading = readValue(field, written[field.id] ?? null);
    const detail = 'problem' in reading ? reading.problem : await missing(at, field, reading.value, tx);
    if (detail !== undefined) errors.push({ field: field.id, detail });
    else if ('value' in reading) values[field.id] = reading.value;
  }
  if (errors.length > 0)
    throw new Refused(422, 'values', errors.map(({ detail }) => detail).join(' '), { errors });
  return values;
}

/** What is wrong with a value that names something which is not there. */
async function missing(
  { applicationId, kind, definition }: DataAt,
  { name, type }: EntityField,
  value: Value | null,
  tx: Executor,
): Promise<string | undefined> {
  if (value === null) return undefined;
  if (type.kind === 'unit' && !unitAndBelow(definition, String(value)))
    return `${name}: this unit does not exist.`;
  if (type.kind !== 'record') return undefined;
  const [found] = await tx
    .select({ id: records.id })
    .from(records)
    .where(
      and(
        eq(records.applicationId, applicationId),
        eq(records.kind, kind),
        eq(records.entity, type.entity),
        sql`${records.id} = ${String(value)}`,
      ),
    );
  return found ? undefined : `${name}: this record does not exist.`;
}
