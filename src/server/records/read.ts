import { and, eq, inArray, or, sql, type SQL } from 'drizzle-orm';
import type { Access } from '@/core/access/access';
import { all, holds, type Formula } from '@/core/access/formula';
import { NONE } from '@/core/access/level';
import type { Context, RecordData } from '@/core/access/resolve';
import type { Entity, EntityField } from '@/core/model/definition';
import type { Id } from '@/core/model/id';
import type { Values } from '@/core/model/value';
import { database, type Executor } from '../database/client';
import { records, type RecordKind } from '../database/schema';
import { Refused } from '../http/problem';
import { formulaSql, shownSql, type Row } from './sql';

/** Which records: of one application, sample or live, as one viewer may have them. */
export interface Scope {
  readonly applicationId: string;
  readonly kind: RecordKind;
  readonly access: Access;
}

export interface StoredRecord extends RecordData {
  readonly version: number;
}

export const PAGE_SIZES = { usual: 25, most: 100 };

/** How a list is asked for. */
export interface Query {
  /** Words to search for, anywhere in what the viewer sees of the `search` fields. */
  readonly q?: string;
  readonly sort?: { readonly field: Id; readonly descending: boolean };
  /** From 1. */
  readonly page: number;
  readonly size: number;
}

export interface Page {
  readonly records: readonly StoredRecord[];
  /** How many there are in all. */
  readonly total: number;
  readonly page: number;
  readonly size: number;
}

const inScope = (scope: Scope, entity: Id): SQL | undefined =>
  and(
    eq(records.applicationId, scope.applicationId),
    eq(records.kind, scope.kind),
    eq(records.entity, entity),
  );

const columns = { id: records.id, version: records.version, values: records.data };

/** The stored record as it is, whoever asks: decide before anything of it is sent. */
export async function storedRecord(
  scope: Scope,
  entity: Id,
  id: Id,
  on: Executor = database(),
  lock?: 'update' | 'share',
): Promise<StoredRecord | undefined> {
  const query = on
    .select(columns)
    .from(records)
    .where(and(inScope(scope, entity), eq(records.id, id)));
  const [row] = await (lock ? query.for(lock) : query);
  return row;
}

/** The record, if its rows door is open to the viewer. A closed one is as one that does not exist. */
export async function openRecord(
  scope: Scope,
  entity: Id,
  id: Id,
  on: Executor = database(),
  lock?: 'update' | 'share',
): Promise<StoredRecord | undefined> {
  const rows = scope.access.doors.rows(entity).see;
  if (rows === false) return undefined;
  const row = await storedRecord(scope, entity, id, on, lock);
  return row && holds(rows, row.values) ? row : undefined;
}

/** Fields whose words can be searched. */
const SEARCHED: readonly EntityField['type']['kind'][] = ['text', 'choice', 'record'];

/**
 * A page of the records that the viewer may have, of those that pass `filter`. Sorting and searching
 * treat a field that they may not see on a record as empty there. Refuses to sort by a field that they
 * can see on no record, in the words for one that does not exist.
 */
export async function listRecords(
  scope: Scope,
  entity: Entity,
  filter: Formula,
  search: readonly EntityField[],
  query: Query,
): Promise<Page> {
  const { access } = scope;
  const row: Row = { alias: sql.raw('records'), entity };
  const rows = all(access.doors.rows(entity.id).see, filter);
  const where = and(
    inScope(scope, entity.id),
    formulaSql(row, rows),
    query.q?.trim() ? searchSql(access, row, search, query.q.trim()) : undefined,
  );
  const order = [...orderSql(access, row, query.sort), sql`${records.id} collate "C"`];
  const on = database();
  const [found, total] = await Promise.all([
    on
      .select(columns)
      .from(records)
      .where(where)
      .orderBy(...order)
      .limit(query.size)
      .offset((query.page - 1) * query.size),
    on.$count(records, where),
  ]);
  return { records: found, total, page: query.page, size: query.size };
}

function searchSql(access: Access, row: Row, search: readonly EntityField[], q: string): SQL {
  const fields = search.filter(
    (field) => SEARCHED.includes(field.type.kind) && access.doors.field(field.id, 'existing').see !== false,
  );
  const hits = fields.map(
    (field) => sql`position(lower(${q}) in lower(${shownSql(access, row, field)})) > 0`,
  );
  return or(...hits) ?? sql`false`;
}

function orderSql(access: Access, row: Row, sort: Query['sort']): SQL[] {
  if (!sort) return [sql`${records.createdAt}`];
  const field = row.entity.fields.find((one) => one.id === sort.field);
  if (!field || access.level(access.element(field.id), undefined) === NONE)
    throw new Refused(422, 'no-such-field', `There is no field ${sort.field} to sort by.`);
  const direction = sort.descending ? sql`desc` : sql`asc`;
  return [sql`${shownSql(access, row, field)} ${direction} nulls last`];
}

/** Reads the records that these point to, and gives the look-up that showing them needs. */
export async function targetsOf(
  scope: Scope,
  entity: Entity,
  of: readonly RecordData[],
): Promise<NonNullable<Context['lookUp']>> {
  const byEntity = new Map<Id, Map<Id, Values>>();
  for (const field of entity.fields) {
    if (field.type.kind !== 'record') continue;
    const ids = of.map(({ values }) => values[field.id]).filter((id): id is Id => typeof id === 'string');
    if (ids.length === 0) continue;
    const target = field.type.entity;
    const rows = await database()
      .select(columns)
      .from(records)
      .where(and(inScope(scope, target), inArray(records.id, [...new Set(ids)])));
    const known = byEntity.get(target) ?? new Map<Id, Values>();
    for (const row of rows) known.set(row.id, row.values);
    byEntity.set(target, known);
  }
  return (target, id) => byEntity.get(target)?.get(id);
}
