import { and, eq, inArray, sql } from 'drizzle-orm';
import { type Conversion, convert, type Lost } from '@/core/converting';
import {
  type Definition,
  type Entity,
  type Id,
  type Pointing,
  textOf,
  typeKey,
  type Value,
  type Values,
} from '@/core/model';
import type { Executor } from '../database/client';
import { keptValues, records, type RecordKind } from '../database/schema';
import type { Tell } from '../http/progress';

/** Whose records are looked at or converted: sample ones follow the draft, live ones the release. */
interface Of {
  readonly applicationId: string;
  readonly kind: RecordKind;
}

/** What becomes of a field's stored values. */
export interface Converted {
  readonly entity: Id;
  readonly field: Id;
  /** How many records have a value, how many of these it fits or is turned for, and how many get an earlier one back. */
  readonly held: number;
  readonly fits: number;
  readonly back: number;
  /** How many it does not fit: they are empty from then on, and kept. The first of them. */
  readonly lost: number;
  readonly examples: readonly { readonly record: string; readonly value: string }[];
}

/** So many records are read and written by one statement. */
const AT_ONCE = 2000;
const EXAMPLES = 5;

type Change = Conversion & { readonly entity: Entity };

/**
 * Converts the records of fields that hold another type, and keeps each value that is another one then. With `write`
 * false it only tells what would become of them. All within the transaction that it is given.
 *
 * @param today `2026-11-26`
 */
export async function convertRecords(
  of: Of,
  before: Definition,
  after: Definition,
  changes: readonly Conversion[],
  tx: Executor,
  {
    write,
    today,
    tell,
    signal,
  }: { write: boolean; today: string; tell?: Tell | undefined; signal?: AbortSignal | undefined },
): Promise<readonly Converted[]> {
  const told: Converted[] = [];
  const pointing = await pointingFor(of, before, after, changes, tx);
  const by = { definition: { ...after, units: [...after.units, ...before.units] }, pointing, today };
  for (const entity of new Set(changes.map((one) => one.entity))) {
    const fields = changes.filter((one) => one.entity === entity);
    told.push(...(await convertEntity(of, entity, fields, by, tx, write, tell, signal)));
  }
  return told;
}

interface ValueConversion {
  readonly id: Id;
  readonly field: Id;
  readonly type: string;
  readonly value: Value;
  readonly became: Value | null;
}

async function convertEntity(
  { applicationId, kind }: Of,
  entity: Entity,
  changes: readonly Change[],
  by: Parameters<typeof convert>[3],
  tx: Executor,
  write: boolean,
  tell: Tell | undefined,
  signal: AbortSignal | undefined,
): Promise<Converted[]> {
  const counts = changes.map(({ field }) => ({
    entity: entity.id,
    field: field.id,
    held: 0,
    fits: 0,
    back: 0,
    lost: 0,
    examples: [] as { record: string; value: string }[],
  }));
  const where = and(
    eq(records.applicationId, applicationId),
    eq(records.kind, kind),
    eq(records.entity, entity.id),
    sql`${records.data} ?| ${sql.param(changes.map(({ field }) => field.id))}::text[]`,
  );
  const all = tell ? await tx.$count(records, where) : 0;
  let done = 0;
  let last = '';
  for (;;) {
    signal?.throwIfAborted();
    const rows = await tx
      .select({ id: records.id, values: records.data })
      .from(records)
      .where(and(where, sql`${records.id} collate "C" > ${last}`))
      .orderBy(sql`${records.id} collate "C"`)
      .limit(AT_ONCE);
    if (rows.length === 0) return counts;
    last = rows.at(-1)?.id ?? '';
    const kept = await keptOf(
      applicationId,
      kind,
      entity.id,
      rows.map(({ id }) => id),
      tx,
    );
    const turned = new Map<Id, Record<Id, Value | null>>();
    const turns: ValueConversion[] = [];
    for (const { id, values } of rows)
      changes.forEach(({ field, from }, n) => {
        const count = counts[n];
        const value = values[field.id] ?? null;
        const earlier = kept.get(`${id} ${field.id} ${typeKey(field.type)}`);
        const isBack = earlier !== undefined && earlier.became === value;
        const next = isBack
          ? earlier.value
          : value === null
            ? undefined
            : convert(value, from, field.type, by);
        if (!count) return;
        if (value !== null) count.held++;
        if (isBack) count.back++;
        else if (value !== null && next !== undefined) count.fits++;
        else if (value !== null) {
          count.lost++;
          if (count.examples.length < EXAMPLES)
            count.examples.push({
              record: String(values[entity.labelField] ?? id).slice(0, 80),
              value: (textOf(value, from, by) ?? String(value)).slice(0, 80),
            });
        }
        const became = next ?? null;
        if (became === value) return;
        turned.set(id, { ...turned.get(id), [field.id]: became });
        if (value !== null) turns.push({ id, field: field.id, type: typeKey(from), value, became });
      });
    if (write) await put({ applicationId, kind }, entity.id, turned, turns, tx);
    done += rows.length;
    tell?.(done, all);
  }
}

/** Values that were kept for these records, by record, field and type. */
async function keptOf(
  applicationId: string,
  kind: RecordKind,
  entity: Id,
  ids: readonly Id[],
  tx: Executor,
): Promise<ReadonlyMap<string, { readonly value: Value; readonly became: Value | null }>> {
  const rows = await tx
    .select({
      id: keptValues.id,
      field: keptValues.field,
      type: keptValues.type,
      // As texts: the library reads a JSON string of digits as a number.
      value: sql<string>`${keptValues.value}::text`,
      became: sql<string | null>`${keptValues.became}::text`,
    })
    .from(keptValues)
    .where(
      and(
        eq(keptValues.applicationId, applicationId),
        eq(keptValues.kind, kind),
        eq(keptValues.entity, entity),
        inArray(keptValues.id, [...ids]),
      ),
    );
  return new Map(
    rows.map(({ id, field, type, value, became }) => [
      `${id} ${field} ${type}`,
      { value: JSON.parse(value) as Value, became: became === null ? null : (JSON.parse(became) as Value) },
    ]),
  );
}

async function put(
  { applicationId, kind }: Of,
  entity: Id,
  turned: ReadonlyMap<Id, Values>,
  turns: readonly ValueConversion[],
  tx: Executor,
): Promise<void> {
  if (turned.size === 0) return;
  await tx.execute(sql`
    update ${records} set data = data || new.values, version = version + 1, updated_at = now()
    from unnest(${sql.param([...turned.keys()])}::text[], ${sql.param([...turned.values()].map((one) => JSON.stringify(one)))}::jsonb[])
      as new (id, values)
    where application_id = ${applicationId} and kind = ${kind} and entity = ${entity} and records.id = new.id`);
  if (turns.length === 0) return;
  const column = (key: keyof ValueConversion) => sql.param(turns.map((one) => String(one[key])));
  const json = (key: 'value' | 'became') => sql.param(turns.map((one) => JSON.stringify(one[key])));
  await tx.execute(sql`
    insert into ${keptValues} (application_id, kind, entity, id, field, type, value, became)
    select ${applicationId}, ${kind}, ${entity}, id, field, type, value, nullif(became, 'null'::jsonb)
    from unnest(${column('id')}::text[], ${column('field')}::text[], ${column('type')}::text[],
      ${json('value')}::jsonb[], ${json('became')}::jsonb[]) as new (id, field, type, value, became)
    on conflict (application_id, kind, entity, id, field, type)
      do update set value = excluded.value, became = excluded.became`);
}

/** What the records are called that fields point to, or pointed to, where a conversion asks for it. */
async function pointingFor(
  { applicationId, kind }: Of,
  before: Definition,
  after: Definition,
  changes: readonly Conversion[],
  tx: Executor,
): Promise<Pointing> {
  const asked = new Set(
    changes.flatMap(({ field, from }) =>
      [from, field.type].flatMap((type) => (type.kind === 'record' ? [type.entity] : [])),
    ),
  );
  const labels = new Map<Id, Map<Id, string>>();
  const ids = new Map<Id, Map<string, Id>>();
  for (const id of asked) {
    const entity = [...after.entities, ...before.entities].find((one) => one.id === id);
    if (!entity) continue;
    const rows = await tx
      .select({ id: records.id, label: sql<string | null>`${records.data} ->> ${entity.labelField}` })
      .from(records)
      .where(and(eq(records.applicationId, applicationId), eq(records.kind, kind), eq(records.entity, id)));
    labels.set(id, new Map(rows.flatMap((row) => (row.label === null ? [] : [[row.id, row.label]]))));
    ids.set(
      id,
      new Map(rows.flatMap((row) => (row.label === null ? [] : [[row.label.toLowerCase(), row.id]]))),
    );
  }
  return {
    called: (entity, label) => ids.get(entity)?.get(label.toLowerCase()),
    labelOf: (entity, id) => labels.get(entity)?.get(id),
  };
}

/** How many records hold something that goes with a definition, or lack something that is needed from then on. */
export async function countLost({ applicationId, kind }: Of, lost: Lost, on: Executor): Promise<number> {
  const { what, entity, field } = lost;
  const value = sql`${records.data} ->> ${field?.id ?? ''}`;
  return on.$count(
    records,
    and(
      eq(records.applicationId, applicationId),
      eq(records.kind, kind),
      eq(records.entity, entity.id),
      what === 'entity' ? undefined : what === 'field' ? sql`${value} is not null` : sql`${value} is null`,
    ),
  );
}
