import { and, asc, eq, sql } from 'drizzle-orm';
import { type Definition, type Entity, type EntityField, unitsOf, type Value } from '@/core/model';
import { toCsv } from '../csv';
import { database } from '../database/client';
import { records, type RecordKind } from '../database/schema';

const AT_ONCE = 1000;

/**
 * All records of an entity as CSV (RFC 4180), in the order in which they were made, piece by piece: their ids, then
 * their fields by name. What points has the other record's id; choices and units have their names.
 */
export async function* recordsFile({
  applicationId,
  definition,
  entity,
  kind,
}: {
  readonly applicationId: string;
  readonly definition: Definition;
  readonly entity: Entity;
  readonly kind: RecordKind;
}): AsyncGenerator<string> {
  const cells = entity.fields.map((field) => cellOf(definition, field));
  yield toCsv([['id', ...entity.fields.map(({ name }) => name)]]);
  let after: { readonly at: string; readonly id: string } | undefined;
  do {
    const rows = await database()
      .select({ id: records.id, data: records.data, at: sql<string>`${records.createdAt}::text` })
      .from(records)
      .where(
        and(
          eq(records.applicationId, applicationId),
          eq(records.kind, kind),
          eq(records.entity, entity.id),
          // As a text: a date of the program's would lose the microseconds.
          after && sql`(${records.createdAt}, ${records.id}) > (${after.at}::timestamptz, ${after.id})`,
        ),
      )
      .orderBy(asc(records.createdAt), asc(records.id))
      .limit(AT_ONCE);
    if (rows.length > 0)
      yield toCsv(
        rows.map(({ id, data }) => [
          id,
          ...entity.fields.map((field, n) => cells[n]?.(data[field.id]) ?? ''),
        ]),
      );
    after = rows.length === AT_ONCE ? rows.at(-1) : undefined;
  } while (after);
}

type Cell = (value: Value | null | undefined) => string;

function cellOf(definition: Definition, { type }: EntityField): Cell {
  const plain: Cell = (value) => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : (value ?? ''));
  const named =
    type.kind === 'choice' ? type.options : type.kind === 'unit' ? unitsOf(definition) : undefined;
  if (!named) return plain;
  const names = new Map(named.map(({ id, name }) => [id, name]));
  return (value) => names.get(String(value ?? '')) ?? '';
}
