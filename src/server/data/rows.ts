import { and, asc, eq, inArray, or, sql, type SQL } from 'drizzle-orm';
import { accessOf, compile, parse } from '@/core';
import { rightNow, SIGNED_OUT } from '@/core/access';
import { bind } from '@/core/condition';
import { type Entity, type EntityField, type Id, kindOf, listedIn, type Values } from '@/core/model';
import type { DataPage } from '@/core/making';
import { database } from '../database/client';
import { records } from '../database/schema';
import { Refused } from '../http/problem';
import { passesSql } from '../records/sql';
import type { DataAt } from './at';

const SIZE = 50;

/** All records of that kind and entity. */
export const whereOf = ({ applicationId, kind, entity }: Pick<DataAt, 'applicationId' | 'kind' | 'entity'>) =>
  and(eq(records.applicationId, applicationId), eq(records.kind, kind), eq(records.entity, entity.id));

/** `?q=&filter=&sort=[-]FIELD&page=`: a page of the records, those that have the words anywhere and meet the condition. */
export async function dataRows(at: DataAt, params: URLSearchParams): Promise<DataPage> {
  const page = Number(params.get('page') ?? 1);
  if (!Number.isInteger(page) || page < 1 || page > 100_000)
    throw new Refused(422, 'query', 'page must be a whole number of at least 1.');
  const q = (params.get('q') ?? '').trim().slice(0, 200);
  const where = and(whereOf(at), q === '' ? undefined : has(at, q), meets(at, params.get('filter') ?? ''));
  const on = database();
  const [rows, total] = await Promise.all([
    on
      .select({ id: records.id, version: records.version, values: records.data })
      .from(records)
      .where(where)
      .orderBy(...orderOf(at, params.get('sort') ?? ''), asc(records.createdAt), asc(records.id))
      .limit(SIZE)
      .offset((page - 1) * SIZE),
    on.$count(records, where),
  ]);
  const called = await labelsOf(
    at,
    rows.map(({ values }) => values),
  );
  const { language, currency, units } = at.definition;
  return {
    entity: at.entity,
    manner: { language, currency, units },
    rows: rows.map((row) => ({ ...row, labels: called(row.values) })),
    total,
    page,
    size: SIZE,
  };
}

/** A condition in its text form, of the record and the time: nobody in particular asks. */
function meets({ definition, entity }: DataAt, filter: string): SQL | undefined {
  if (filter.trim() === '') return undefined;
  const scope = { definition, entity };
  const parsed = parse(scope, filter.slice(0, MOST_FILTER));
  if (!parsed.ok) {
    const { place, message, mend } = parsed.problem;
    throw new Refused(422, 'filter', `The filter has an error ${place}: ${message} ${mend}`);
  }
  const { held } = accessOf(compile(definition), SIGNED_OUT, rightNow());
  const formula = bind(held.facts, scope, parsed.value, 'be true');
  return passesSql({ alias: sql.raw('records'), entity }, formula);
}

const MOST_FILTER = 2000;

const textOf = (field: EntityField): SQL => sql`${records.data} ->> ${field.id}`;

/** Has the record the words: in a text, or as an option, a unit or what it points to is called? */
function has({ applicationId, kind, definition, entity }: DataAt, q: string): SQL | undefined {
  const words = q.toLowerCase();
  const fits = ({ name }: { readonly name: string }): boolean => name.toLowerCase().includes(words);
  return or(
    ...entity.fields.map((field) => {
      const { type } = field;
      const { form, listed } = kindOf(type);
      if (form === 'boolean') return undefined;
      if (listed) {
        const all = listedIn(type, definition).filter(fits);
        return sql`${textOf(field)} = any(${sql.param(all.map(({ id }) => id))}::text[])`;
      }
      if (type.kind !== 'record') return sql`position(${words} in lower(${textOf(field)})) > 0`;
      const target = definition.entities.find(({ id }) => id === type.entity);
      return sql`exists (select 1 from records target where target.application_id = ${applicationId}
        and target.kind = ${kind} and target.entity = ${type.entity} and target.id = ${textOf(field)}
        and position(${words} in lower(target.data ->> ${target?.labelField ?? ''})) > 0)`;
    }),
  );
}

function orderOf({ entity }: DataAt, sort: string): SQL[] {
  if (sort === '') return [];
  const field = entity.fields.find(({ id }) => id === sort.replace(/^-/, ''));
  if (!field) throw new Refused(422, 'no-such-field', 'The field to sort by does not exist.');
  const text = textOf(field);
  const { type } = field;
  const value =
    kindOf(type).form === 'decimal'
      ? sql`case when ${text} ~ '^-?[0-9]+([.][0-9]+)?$' then (${text})::numeric end`
      : type.kind === 'choice'
        ? sql`array_position(${sql.param(type.options.map(({ id }) => id))}::text[], ${text})`
        : sql`lower(${text})`;
  return [sort.startsWith('-') ? sql`${value} desc nulls last` : sql`${value} asc nulls last`];
}

/** What the records are called that these point to: one query for each entity. */
async function labelsOf(
  { applicationId, kind, definition, entity }: DataAt,
  all: readonly Values[],
): Promise<(values: Values) => Record<Id, string>> {
  const pointing = entity.fields.flatMap(({ id, type }) =>
    type.kind === 'record' ? [{ field: id, to: type.entity }] : [],
  );
  const found = new Map<string, string>();
  for (const to of new Set(pointing.map((one) => one.to))) {
    const target = definition.entities.find(({ id }) => id === to);
    const ids = pointing
      .filter((one) => one.to === to)
      .flatMap(({ field }) =>
        all.flatMap((values) => (typeof values[field] === 'string' ? [values[field]] : [])),
      );
    if (!target || ids.length === 0) continue;
    const rows = await database()
      .select({ id: records.id, label: sql<string | null>`${records.data} ->> ${target.labelField}` })
      .from(records)
      .where(and(whereOf({ applicationId, kind, entity: target }), inArray(records.id, [...new Set(ids)])));
    for (const { id, label } of rows) found.set(`${to} ${id}`, label ?? id);
  }
  return (values) =>
    Object.fromEntries(
      pointing.flatMap(({ field, to }) => {
        const label = found.get(`${to} ${String(values[field])}`);
        return label === undefined ? [] : [[field, label] as const];
      }),
    );
}

/** Records of an entity by what they are called: ids by labels in small letters, and labels by ids. */
export async function calledRecords(
  { applicationId, kind }: Pick<DataAt, 'applicationId' | 'kind'>,
  entity: Entity,
): Promise<{ readonly ids: ReadonlyMap<string, Id>; readonly labels: ReadonlyMap<Id, string> }> {
  const rows = await database()
    .select({ id: records.id, label: sql<string | null>`${records.data} ->> ${entity.labelField}` })
    .from(records)
    .where(whereOf({ applicationId, kind, entity }));
  return {
    ids: new Map(rows.flatMap(({ id, label }) => (label === null ? [] : [[label.trim().toLowerCase(), id]]))),
    labels: new Map(rows.map(({ id, label }) => [id, label ?? ''])),
  };
}

const MOST_DISTINCT = 40;

/** The different values that stand in a field, in their order; undefined where they are many. */
export async function distinctIn(at: DataAt, fieldId: Id): Promise<readonly string[] | undefined> {
  const field = at.entity.fields.find(({ id }) => id === fieldId);
  if (!field) throw new Refused(422, 'no-such-field', 'This field does not exist.');
  const value = sql<string>`btrim(${textOf(field)})`;
  const rows = await database()
    .selectDistinct({ value })
    .from(records)
    .where(and(whereOf(at), sql`${value} <> ''`))
    .orderBy(sql`1`)
    .limit(MOST_DISTINCT + 1);
  return rows.length > MOST_DISTINCT ? undefined : rows.map((row) => row.value);
}

/** How many records have a value in each field, for the sheet of an entity. */
export async function filledIn(
  at: DataAt,
): Promise<{ readonly all: number; readonly filled: Readonly<Record<Id, number>> }> {
  const rows = await database()
    .select({ field: sql<Id>`key`, count: sql<number>`count(*)::int` })
    .from(sql`${records}, jsonb_each(${records.data})`)
    .where(and(whereOf(at), sql`value <> 'null'::jsonb`))
    .groupBy(sql`key`);
  const all = await database().$count(records, whereOf(at));
  return { all, filled: Object.fromEntries(rows.map(({ field, count }) => [field, count])) };
}
