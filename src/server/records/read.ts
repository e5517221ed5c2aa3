import { and, eq, inArray, or, sql, type SQL } from 'drizzle-orm';
import { type Access, type KnownRecord, NONE } from '@/core/access';
import { all, type Formula, type RecordFacts } from '@/core/condition';
import type { Entity, EntityField, Id, Values } from '@/core/model';
import { database, patientDatabase, type Executor } from '../database/client';
import { records } from '../database/schema';
import { Refused } from '../http/problem';
import { readFilter } from './filter';
import { behind, formulaSql, passesSql, saysSql, sortedSql, type Row } from './sql';
import { namedRecords, recordsOf, type Place } from './store';

/** Which records: those of a place, as one viewer may have them. */
export interface RecordScope extends Place {
  readonly access: Access;
}

export interface StoredRecord {
  readonly id: Id;
  readonly version: number;
  readonly values: Values;
}

export const PAGE_SIZES = { usual: 25, most: 100 };

/** How a list is asked for. */
export interface Query {
  /** Words to search for, anywhere in what the viewer sees of the `search` fields. */
  readonly q?: string;
  readonly sort?: { readonly field: Id; readonly descending: boolean };
  /** A condition in its text form, over what the viewer may see. */
  readonly filter?: string;
  /** From 1. */
  readonly page: number;
  readonly size: number;
}

export interface RecordPage {
  readonly records: readonly StoredRecord[];
  /** How many there are in all. */
  readonly total: number;
  readonly page: number;
  readonly size: number;
}

const inScope = (scope: Place, entity: Id): SQL | undefined =>
  and(
    eq(records.applicationId, scope.applicationId),
    eq(records.kind, scope.kind),
    eq(records.entity, entity),
  );

/** Written out: they are read from the table, or from what stands in its place under the same name. */
const columns = {
  id: sql<Id>`records.id`,
  version: sql<number>`records.version`,
  values: sql<Values>`records.data`,
};

/**
 * The record, if its rows door is open to the viewer. A closed one is as one that does not exist: also in
 * what is asked of the database.
 */
export async function openRecord(
  scope: RecordScope,
  entity: Entity,
  id: Id,
  on: Executor = database(),
  lock?: 'update' | 'share',
): Promise<StoredRecord | undefined> {
  const rows = scope.access.doors.rows(entity.id).see;
  if (rows === false) return undefined;
  const query = on
    .select(columns)
    .from(namedRecords(scope))
    .where(and(inScope(scope, entity.id), eq(records.id, id), passesSql(rowOf(scope, entity), rows)));
  // Who writes in a pane has locked the pane.
  const [found] = await (lock && scope.pane === undefined ? query.for(lock, { of: records }) : query);
  return found;
}

/** The record, whoever may see it: for explaining to a builder what was decided on it. */
export async function storedRecord(place: Place, entity: Entity, id: Id): Promise<StoredRecord | undefined> {
  const [found] = await database()
    .select(columns)
    .from(namedRecords(place))
    .where(and(inScope(place, entity.id), eq(records.id, id)));
  return found;
}

const rowOf = (scope: Place, entity: Entity): Row => ({
  alias: sql.raw('records'),
  entity,
  from: recordsOf(scope),
});

/** Fields whose words can be searched. */
const SEARCHED: readonly EntityField['type']['kind'][] = ['text', 'choice', 'record', 'unit'];

/**
 * A page of the records that the viewer may have, of those that pass `filter`. Sorting and searching
 * treat a field that they may not see on a record as empty there. Refuses to sort by a field that they
 * can see on no record, in the words for one that does not exist.
 */
export async function listRecords(
  scope: RecordScope,
  entity: Entity,
  filter: Formula,
  search: readonly EntityField[],
  query: Query,
): Promise<RecordPage> {
  const { access } = scope;
  const row = rowOf(scope, entity);
  const where = whereOf(scope, entity, filter, search, query);
  const order = [...orderSql(access, row, query.sort), sql`${records.id} collate "C"`];
  const on = database();
  const from = namedRecords(scope);
  const { page, size, q } = query;
  const of = (what: typeof columns & { all?: SQL<number> }) =>
    on
      .select(what)
      .from(from)
      .where(where)
      .orderBy(...order)
      .limit(size)
      .offset((page - 1) * size);
  // To search asks every record for its words: they are counted in the same go. Else an index may give the page alone.
  if (q?.trim()) {
    const rows = (await of({ ...columns, all: sql<number>`(count(*) over ())::int` })) as (StoredRecord & {
      readonly all: number;
    })[];
    const total = rows[0]?.all ?? (page === 1 ? 0 : await on.$count(from, where));
    return { records: rows.map(({ id, version, values }) => ({ id, version, values })), total, page, size };
  }
  const [found, total] = await Promise.all([of(columns), on.$count(from, where)]);
  return { records: found, total, page, size };
}

/** The ids of all records that a list has for the viewer, in its order: for what takes it whole, in a process of its own. */
export async function listIds(
  scope: RecordScope,
  entity: Entity,
  filter: Formula,
  search: readonly EntityField[],
  query: Pick<Query, 'q' | 'filter' | 'sort'>,
): Promise<Id[]> {
  const order = [...orderSql(scope.access, rowOf(scope, entity), query.sort), sql`${records.id} collate "C"`];
  const rows = await patientDatabase()
    .select({ id: columns.id })
    .from(namedRecords(scope))
    .where(whereOf(scope, entity, filter, search, query))
    .orderBy(...order);
  return rows.map(({ id }) => id);
}

/** Those of these records that a list has for the viewer, in the order of the ids. */
export async function listedOf(
  scope: RecordScope,
  entity: Entity,
  filter: Formula,
  ids: readonly Id[],
): Promise<StoredRecord[]> {
  const found = await database()
    .select(columns)
    .from(namedRecords(scope))
    .where(
      and(sql`records.id = any(${sql.param([...ids])}::text[])`, whereOf(scope, entity, filter, [], {})),
    );
  const byId = new Map(found.map((one) => [one.id, one]));
  return ids.flatMap((id) => byId.get(id) ?? []);
}

/** Which records a list has for the viewer, as it is asked for. */
function whereOf(
  scope: RecordScope,
  entity: Entity,
  filter: Formula,
  search: readonly EntityField[],
  query: Pick<Query, 'q' | 'filter'>,
): SQL | undefined {
  const { access } = scope;
  const row = rowOf(scope, entity);
  const asked = readFilter(access, entity, query.filter ?? '');
  const door = access.doors.rows(entity.id).see;
  const passes = passesSql(row, filter);
  return and(
    inScope(scope, entity.id),
    passesSql(row, door),
    // By which record a list belongs to, it is asked by who looks at it: only of what is open to them.
    filter === true ? undefined : door === true ? passes : behind(formulaSql(row, door), passes),
    asked === true ? undefined : passesSql(row, asked, access),
    query.q?.trim() ? searchSql(access, row, search, query.q.trim()) : undefined,
  );
}

/** Records that have the same in a field: how many, and the sum and the average of another field. Null: nothing. */
export interface Counted {
  readonly key: string | null;
  readonly count: number;
  readonly sum: string | null;
  readonly average: string | null;
}

const MOST_GROUPS = 200;

/**
 * The records of a list counted by a field, of a day by its month: those on which the viewer may see that field, and
 * the one that is measured.
 */
export async function countRecords(
  scope: RecordScope,
  entity: Entity,
  filter: Formula,
  search: readonly EntityField[],
  query: Pick<Query, 'q' | 'filter'>,
  by: EntityField,
  of: EntityField | undefined,
): Promise<readonly Counted[]> {
  const { doors } = scope.access;
  const seen = [by, ...(of ? [of] : [])].map(({ id }) => doors.field(id, 'existing').see);
  const text = sql`records.data ->> ${by.id}`;
  const measured = sql`records.data ->> ${of?.id ?? ''}`;
  const number = sql`case when ${measured} ~ '^-?[0-9]+([.][0-9]+)?$' then (${measured})::numeric end`;
  return database()
    .select({
      key: sql<string | null>`${by.type.kind === 'date' ? sql`left(${text}, 7)` : text} as key`,
      count: sql<number>`count(*)::int`,
      sum: sql<string | null>`trim_scale(sum(${number}))::text`,
      average: sql<string | null>`trim_scale(round(avg(${number}), 2))::text`,
    })
    .from(namedRecords(scope))
    .where(whereOf(scope, entity, all(filter, ...seen), search, query))
    .groupBy(sql`key`)
    .orderBy(sql`key`)
    .limit(MOST_GROUPS);
}

function searchSql(access: Access, row: Row, search: readonly EntityField[], q: string): SQL {
  const fields = search.filter(
    (field) => SEARCHED.includes(field.type.kind) && access.doors.field(field.id, 'existing').see !== false,
  );
  const openToAll = access.doors.rows(row.entity.id).see === true;
  return or(...fields.map((field) => saysSql(access, row, field, q, openToAll))) ?? sql`false`;
}

function orderSql(access: Access, row: Row, sort: Query['sort']): SQL[] {
  if (!sort) return [sql`${records.createdAt}`];
  const field = row.entity.fields.find((one) => one.id === sort.field);
  if (!field || access.level(access.element(field.id), undefined) === NONE)
    throw new Refused(422, 'no-such-field', `The sort field ${sort.field} does not exist.`);
  const direction = sort.descending ? sql`desc` : sql`asc`;
  return [sql`${sortedSql(access, row, field)} ${direction} nulls last`];
}

/** Finds records that others point to. */
type LookUp = NonNullable<RecordFacts['lookUp']>;

/**
 * The records with all that decisions about them may ask of: those that they point to, and, where
 * conditions go a step further, those that these point to. What is asked of the database does not depend
 * on the values.
 */
export async function knownRecords<T extends StoredRecord>(
  scope: RecordScope,
  entity: Entity,
  of: readonly T[],
  on: Executor = database(),
): Promise<(T & KnownRecord)[]> {
  const found = new Map<string, Values>();
  const first = await readTargets(scope, entity, of, on, found);
  if (scope.access.compiled.goesSteps)
    for (const [target, these] of first) await readTargets(scope, target, these, on, found);
  const lookUp: LookUp = (target, id) => found.get(`${target} ${id}`);
  return of.map((record) => ({ ...record, entity, lookUp }));
}

/** As `knownRecords`, for one. */
export async function knownRecord<T extends StoredRecord>(
  scope: RecordScope,
  entity: Entity,
  record: T,
  on: Executor = database(),
): Promise<T & KnownRecord> {
  const [known] = await knownRecords(scope, entity, [record], on);
  return known as T & KnownRecord;
}

async function readTargets(
  scope: RecordScope,
  entity: Entity,
  of: readonly { readonly values: Values }[],
  on: Executor,
  found: Map<string, Values>,
): Promise<Map<Entity, StoredRecord[]>> {
  const wanted = new Map<Id, Set<Id>>();
  for (const { id, type } of entity.fields) {
    if (type.kind !== 'record') continue;
    const ids = wanted.get(type.entity) ?? new Set<Id>();
    for (const { values } of of) if (typeof values[id] === 'string') ids.add(values[id]);
    if (ids.size > 0) wanted.set(type.entity, ids);
  }
  const read = new Map<Entity, StoredRecord[]>();
  if (wanted.size === 0) return read;
  // One query, however many fields point to something.
  const rows = await on
    .select({ ...columns, entity: sql<Id>`records.entity` })
    .from(namedRecords(scope))
    .where(
      or(...[...wanted].map(([target, ids]) => and(inScope(scope, target), inArray(records.id, [...ids])))),
    );
  for (const { entity: target, ...row } of rows) {
    found.set(`${target} ${row.id}`, row.values);
    const pointedTo = scope.access.compiled.tree.need(target, 'rows').node;
    read.set(pointedTo, [...(read.get(pointedTo) ?? []), row]);
  }
  return read;
}
