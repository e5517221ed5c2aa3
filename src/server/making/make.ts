import { eq, sql } from 'drizzle-orm';
import { readDefinition } from '@/core';
import { withScreensGated } from '@/core/edit';
import {
  recordsFrom,
  type ApplicationFromSheets,
  type MadeRecord,
  type Sheet,
  type SheetChoice,
} from '@/core/making';
import { type Definition, newId, type Problem, unknownSettings, upgradeDefinition } from '@/core/model';
import { patientDatabase, database, type Executor } from '../database/client';
import {
  applications,
  auditEvents,
  formerAddresses,
  memberships,
  records,
  snapshots,
  type RecordKind,
} from '../database/schema';
import { Refused } from '../http/problem';
import type { Tell } from '../http/progress';

/** Words that stand in addresses of the studio, where an application's would stand. */
const KEPT = ['api', 'sign-in', 'new', 'join', 'account'];

/** Refuses an address that no application can have, or that another one has or had. */
export async function requireFree(slug: string, on: Executor, own?: string): Promise<void> {
  const wrong = (detail: string): Refused =>
    new Refused(422, 'address', detail, { errors: [{ field: 'slug', detail }] });
  if (!/^[a-z0-9]+(-[a-z0-9]+)*$/.test(slug) || slug.length > 60)
    throw wrong('Use at most 60 lower-case letters, digits and hyphens for the address.');
  if (KEPT.includes(slug)) throw wrong(`The address ${slug} is reserved. Choose another one.`);
  const taken = (): Refused =>
    wrong(`Another application already uses the address ${slug}. Choose another one.`);
  const [now] = await on
    .select({ id: applications.id })
    .from(applications)
    .where(eq(applications.slug, slug));
  if (now && now.id !== own) throw taken();
  const [before] = await on
    .select({ id: formerAddresses.applicationId })
    .from(formerAddresses)
    .where(eq(formerAddresses.slug, slug));
  if (before && before.id !== own) throw taken();
}

interface NewApplication {
  readonly slug: string;
  readonly definition: Definition;
  /** Its first records, in their order, and how many there are. */
  readonly records?: { readonly of: Iterable<MadeRecord>; readonly count: number };
  /** In which words the audit trail tells where it came from. */
  readonly from: 'nothing' | 'copy' | 'file' | 'csv' | 'postgres';
}

/** So many records are stored by one statement. */
const AT_ONCE = 2000;

/** Makes an application whose owner is that builder: all of it, or nothing. It is not released. */
export async function makeApplication(
  builderId: string,
  { slug, definition, records: first, from }: NewApplication,
  tell: Tell = () => undefined,
  signal?: AbortSignal,
): Promise<void> {
  const read = readDefinition(definition);
  if (!read.ok) throw invalidDefinition(read.problems);
  // A copy has what its original has.
  const unknown = from === 'copy' ? [] : unknownSettings(definition);
  if (unknown.length > 0) throw invalidDefinition(unknown);
  await patientDatabase().transaction(async (tx) => {
    // Of two that ask for one address, the second waits, and is told.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${slug}, 11))`);
    await requireFree(slug, tx);
    const applicationId = definition.id;
    await tx.insert(applications).values({ id: applicationId, slug, name: definition.name });
    await tx.insert(snapshots).values({ applicationId, revision: 0, definition });
    await tx
      .insert(memberships)
      .values({ applicationId, builderId, role: 'owner', people: true, live: 'change' });
    if (first) await addRecords(tx, applicationId, 'sample', first.of, first.count, tell, signal);
    await tx
      .insert(auditEvents)
      .values({ applicationId, builderId, what: 'application-made', detail: { from } });
  });
}

const invalidDefinition = (problems: readonly Problem[]): Refused => {
  const [first] = problems;
  return new Refused(422, 'definition', `${first?.place}: ${first?.message} ${first?.mend}`, {
    problems: [...problems],
  });
};

/** Stores records that were never there, many by one statement. They are in the order in which they come. */
async function addRecords(
  tx: Executor,
  applicationId: string,
  kind: RecordKind,
  all: Iterable<MadeRecord>,
  count: number,
  tell: Tell,
  signal: AbortSignal | undefined,
): Promise<void> {
  let [entities, ids, data] = [[] as string[], [] as string[], [] as string[]];
  let done = 0;
  const store = async (): Promise<void> => {
    signal?.throwIfAborted();
    await tx.execute(sql`
      insert into ${records} (application_id, kind, entity, id, data, created_at)
      select ${applicationId}, ${kind}, entity, id, data, now() + place * interval '1 microsecond'
      from unnest(${sql.param(entities)}::text[], ${sql.param(ids)}::text[], ${sql.param(data)}::jsonb[])
        with ordinality as new (entity, id, data, n), lateral (select ${done}::int + n as place) as order_of`);
    done += ids.length;
    tell(done, count);
    [entities, ids, data] = [[], [], []];
  };
  for (const { entity, id, values } of all) {
    entities.push(entity);
    ids.push(id);
    data.push(JSON.stringify(values));
    if (ids.length >= AT_ONCE) await store();
  }
  if (ids.length > 0) await store();
}

/** The records of sheets, with how many there are. */
export const firstRecords = (
  made: ApplicationFromSheets,
  sheets: readonly Sheet[],
  choices: readonly SheetChoice[],
  today: string,
): NonNullable<NewApplication['records']> => ({
  of: recordsFrom(made, sheets, choices, today),
  count: sheets.reduce((sum, { rows }) => sum + rows.length, 0),
});

/**
 * A definition file as the document of a new application: brought up to date, and sound; refused with all faults. A
 * screen of which it says nothing is gated as new screens are.
 */
export function definitionFrom(file: unknown, name: string): Definition {
  const read = readDefinition(upgradeDefinition(file));
  if (!read.ok) throw invalidDefinition(read.problems);
  return underNewId(withScreensGated(read.value), name);
}

/** The definition under an id of its own. All other ids stay: they are of that application alone. */
function underNewId(definition: Definition, name: string): Definition {
  const id = newId();
  const turned = <T>(all: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(Object.entries(all).map(([key, one]) => [key === definition.id ? id : key, one]));
  return { ...definition, id, name, gates: turned(definition.gates), closed: turned(definition.closed) };
}

/** Copies an application as its draft is, with its sample records; nobody's account, and nothing that is live. */
export async function copyApplication(
  builderId: string,
  from: { readonly applicationId: string; readonly definition: Definition },
  name: string,
  slug: string,
  tell?: Tell,
  signal?: AbortSignal,
): Promise<void> {
  const definition = underNewId(from.definition, name);
  const rows = await database()
    .select({ entity: records.entity, id: records.id, values: records.data })
    .from(records)
    .where(sql`${records.applicationId} = ${from.applicationId} and ${records.kind} = 'sample'`)
    .orderBy(records.createdAt, records.id);
  const all = { of: rows, count: rows.length };
  await makeApplication(builderId, { slug, definition, records: all, from: 'copy' }, tell, signal);
}
