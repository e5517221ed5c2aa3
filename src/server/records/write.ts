import { and, eq, or, sql } from 'drizzle-orm';
import { answerOf, EDIT, type KnownRecord, type Level, levelOn, NONE } from '@/core/access';
import { holds, type RecordFacts } from '@/core/condition';
import {
  type Action,
  type Definition,
  type Entity,
  type EntityField,
  type Id,
  newId,
  readValue,
  unitAndBelow,
  type Value,
  type Values,
} from '@/core/model';
import { database, type Executor } from '../database/client';
import { auditEvents, records } from '../database/schema';
import { notThere, Refused, type FieldProblem } from '../http/problem';
import { knownRecord, openRecord, type RecordScope, type StoredRecord } from './read';
import { tagOf } from './tag';
import { beginWriting, insertRecord, namedRecords, putRecord, type Place } from './store';

/** Who writes, for the audit trail; and whether it is kept, or only tried and rolled back. */
export interface Writer {
  readonly personId?: string;
  /** Who does it, standing in for that person. */
  readonly standingIn?: string;
  readonly keep: boolean;
  /** Why nothing is written at all. */
  readonly refusal?: string | undefined;
}

/** What somebody wrote, by the field's id, as it came. */
export type Input = Readonly<Record<Id, unknown>>;

/** Ends a transaction whose result is wanted but not kept. */
class RolledBack<T> extends Error {
  constructor(readonly result: T) {
    super('Rolled back as asked');
  }
}

async function inTransaction<T>(
  scope: RecordScope,
  writer: Writer,
  work: (tx: Executor) => Promise<T>,
): Promise<T> {
  if (writer.refusal !== undefined) throw new Refused(403, 'reading-only', writer.refusal);
  try {
    return await database().transaction(async (tx) => {
      await beginWriting(scope, tx);
      const result = await work(tx);
      if (!writer.keep) throw new RolledBack(result);
      return result;
    });
  } catch (error) {
    if (error instanceof RolledBack) return error.result as T;
    throw error;
  }
}

/**
 * Makes a record. Which fields may be written, and whether it may be made at all, is decided on the
 * record as it would be. Returns it, and whether its maker may see it now that it is there.
 */
export async function createRecord(
  scope: RecordScope,
  writer: Writer,
  entity: Entity,
  input: Input,
): Promise<StoredRecord & { readonly readable: boolean }> {
  return inTransaction(scope, writer, async (tx) => {
    const { tree } = scope.access.compiled;
    const { doors } = scope.access;
    const initial = Object.fromEntries(entity.fields.map((field) => [field.id, field.initial ?? null]));
    const read = readInput(scope.access.compiled.definition, entity, input);
    const values: Values = { ...initial, ...read.values };
    const record = { id: newId(), version: 1, values };
    // Doors may ask of the records that it points to: those that its maker may not see are refused before.
    requireWritable(entity, input, (field) => answerOf(doors.field(field.id, 'new')).most);
    requireSound(read.problems);
    await requireTargets(scope, entity, read.values, tx);
    const proposed = await knownRecord(scope, entity, record, tx);
    const levelOf = (field: EntityField): Level => levelOn(doors.field(field.id, 'new'), proposed);
    requireWritable(entity, input, levelOf);
    requireOpen(scope, tree.action(entity, 'create'), proposed);
    requireSound(missing(entity.fields, values, levelOf));
    await insertRecord(scope, entity, record, tx);
    await audit(tx, scope, writer, 'create', entity, record.id);
    return { ...record, readable: levelOn(scope.access.doors.rows(entity.id), proposed) > NONE };
  });
}

/**
 * Changes fields of a record. Decided on the stored record, and then the result must be one that the
 * viewer could have put there. A request that writes one field it may not is refused whole.
 * `seen` is the tag of the record as the writer has seen it; where what they may see is another one by now,
 * nothing is overwritten. One request counts as the chain of requests that it could have been.
 */
export async function updateRecord(
  scope: RecordScope,
  writer: Writer,
  entity: Entity,
  id: Id,
  seen: string,
  input: Input,
): Promise<StoredRecord> {
  return inTransaction(scope, writer, (tx) => updateIn(tx, scope, writer, entity, id, seen, input));
}

/**
 * Changes the same fields of several records, all or none: each as `updateRecord` would, and only if `may`
 * allows it. One that may not be changed refuses the whole, and is named by its place in `chosen`.
 */
export async function changeMany(
  scope: RecordScope,
  writer: Writer,
  entity: Entity,
  chosen: readonly { readonly id: Id; readonly version: string }[],
  input: Input,
  may: (record: RecordFacts) => boolean,
): Promise<StoredRecord[]> {
  return inTransaction(scope, writer, async (tx) => {
    const changed: StoredRecord[] = [];
    for (const [n, { id, version }] of chosen.entries())
      try {
        changed.push(await updateIn(tx, scope, writer, entity, id, version, input, may));
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        throw new Refused(
          error.status,
          error.code,
          `Nothing was changed, because of a problem with the ${ordinal(n + 1)} selected record: ${error.detail}`,
          error.more,
        );
      }
    return changed;
  });
}

const ordinal = (n: number): string => {
  const ending = n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${ending}`;
};

async function updateIn(
  tx: Executor,
  scope: RecordScope,
  writer: Writer,
  entity: Entity,
  id: Id,
  seen: string,
  input: Input,
  may: (record: RecordFacts) => boolean = () => true,
): Promise<StoredRecord> {
  const stored = await lockedRecord(scope, entity, id, tx);
  if (!may(stored)) throw new Refused(403, 'action-closed', 'You do not have permission to do this here.');
  const update = scope.access.compiled.tree.action(entity, 'update');
  const levelsOn = (record: RecordFacts) => (field: EntityField) =>
    levelOn(scope.access.doors.field(field.id, 'existing'), record);
  const read = readInput(scope.access.compiled.definition, entity, input);
  const inChain = await writtenInChain(tx, scope, entity, stored, read.values);
  const levelOf = levelsOn(stored);
  requireWritable(entity, input, (field) => (inChain.has(field.id) ? EDIT : levelOf(field)));
  requireOpen(scope, update, stored);
  requireVersion(scope, stored, seen);
  requireSound(read.problems);
  await requireTargets(scope, entity, read.values, tx);
  const values = { ...stored.values, ...read.values };
  requirePlace(scope, update, await knownRecord(scope, entity, { ...stored, values }, tx));
  await audit(tx, scope, writer, 'update', entity, id);
  return store(scope, entity, stored, values, tx);
}

/**
 * The fields that may be written since they become so once those that may be are written, each step being allowed
 * by itself: what a chain of requests could have written. What is pointed to in a step must be open to the writer.
 */
async function writtenInChain(
  tx: Executor,
  scope: RecordScope,
  entity: Entity,
  stored: StoredRecord & KnownRecord,
  values: Values,
): Promise<ReadonlySet<Id>> {
  const { doors, compiled } = scope.access;
  const update = doors.action(compiled.tree.action(entity, 'update').id);
  const written = new Set<Id>();
  let record: KnownRecord = stored;
  for (;;) {
    const next = entity.fields.filter(
      ({ id }) =>
        Object.hasOwn(values, id) &&
        !written.has(id) &&
        levelOn(doors.field(id, 'existing'), record) === EDIT,
    );
    if (next.length === 0 || !holds(update.edit, record)) return written;
    const step = Object.fromEntries(next.map(({ id }) => [id, values[id] ?? null]));
    if ((await targetProblems(scope, entity, step, tx)).length > 0) return written;
    const after = { ...stored, values: { ...record.values, ...step } };
    record = await knownRecord(scope, entity, after, tx);
    if (!holds(update.edit, record)) return written;
    for (const { id } of next) written.add(id);
  }
}

/**
 * The record as it would be with as much of the input as the writer could write, each step being allowed by itself;
 * undefined where the result would be out of their reach. Nothing is stored.
 */
export async function recordBeforeSaving(
  scope: RecordScope,
  entity: Entity,
  stored: StoredRecord & KnownRecord,
  input: Input,
): Promise<KnownRecord | undefined> {
  const { values } = readInput(scope.access.compiled.definition, entity, input);
  return database().transaction(async (tx) => {
    const inChain = await writtenInChain(tx, scope, entity, stored, values);
    const kept = Object.entries(values).filter(([id]) => inChain.has(id));
    if (kept.length === 0) return undefined;
    const after = { ...stored, values: { ...stored.values, ...Object.fromEntries(kept) } };
    const proposed = await knownRecord(scope, entity, after, tx);
    const update = scope.access.doors.action(scope.access.compiled.tree.action(entity, 'update').id);
    return holds(update.edit, proposed) && holds(scope.access.doors.rows(entity.id).see, proposed)
      ? proposed
      : undefined;
  });
}

/**
 * The same of a record that is being made: what its fields hold at first, with as much of the input as its maker may
 * write on it.
 */
export async function recordBeforeMaking(
  scope: RecordScope,
  entity: Entity,
  input: Input,
): Promise<KnownRecord | undefined> {
  const { doors, compiled } = scope.access;
  const { values } = readInput(compiled.definition, entity, input);
  const initial = Object.fromEntries(entity.fields.map((field) => [field.id, field.initial ?? null]));
  return database().transaction(async (tx) => {
    if ((await targetProblems(scope, entity, values, tx)).length > 0) return undefined;
    const known = (held: Values): Promise<KnownRecord> =>
      knownRecord(scope, entity, { id: '', version: 1, values: held }, tx);
    let written: Values = values;
    for (;;) {
      const record = await known({ ...initial, ...written });
      const may = Object.entries(written).filter(([id]) => levelOn(doors.field(id, 'new'), record) === EDIT);
      if (may.length < Object.keys(written).length) {
        written = Object.fromEntries(may);
        continue;
      }
      const create = doors.action(compiled.tree.action(entity, 'create').id);
      return may.length > 0 && holds(create.edit, record) ? record : undefined;
    }
  });
}

/** Runs a named action: sets what it declares. It is open or not by its own door, whatever the fields' are. */
export async function runAction(
  scope: RecordScope,
  writer: Writer,
  entity: Entity,
  id: Id,
  seen: string,
  actionId: Id,
): Promise<StoredRecord> {
  return inTransaction(scope, writer, async (tx) => {
    const stored = await lockedRecord(scope, entity, id, tx);
    const action = entity.actions.find((one) => one.id === actionId);
    if (action?.kind !== 'named' || levelOn(scope.access.doors.action(action.id), stored) === NONE)
      throw notThere();
    requireOpen(scope, action, stored);
    requireVersion(scope, stored, seen);
    const values = { ...stored.values, ...action.sets };
    // What becomes of the record is what the builder meant: it need not be where its runner could have put it.
    const set = entity.fields.filter(({ id }) => Object.hasOwn(action.sets, id));
    requireSound(
      missing(set, values, (field) => levelOn(scope.access.doors.field(field.id, 'existing'), stored)),
    );
    await audit(tx, scope, writer, action.name, entity, id);
    return store(scope, entity, stored, values, tx);
  });
}

/**
 * Deletes a record. While others point to it, it stays, with one plain answer: not how many do, nor
 * which, since those may be hidden.
 */
export async function deleteRecord(
  scope: RecordScope,
  writer: Writer,
  entity: Entity,
  id: Id,
  seen: string,
): Promise<void> {
  return inTransaction(scope, writer, async (tx) => {
    const stored = await lockedRecord(scope, entity, id, tx);
    requireOpen(scope, scope.access.compiled.tree.action(entity, 'delete'), stored);
    requireVersion(scope, stored, seen);
    if (await isPointedTo(scope, scope.access.compiled.definition, entity, id, tx))
      throw new Refused(
        409,
        'in-use',
        `This ${entity.name.toLowerCase()} cannot be deleted, because another record refers to it.`,
      );
    await putRecord(scope, entity, id, stored.version, null, tx);
    await audit(tx, scope, writer, 'delete', entity, id);
  });
}

async function lockedRecord(
  scope: RecordScope,
  entity: Entity,
  id: Id,
  tx: Executor,
): Promise<StoredRecord & KnownRecord> {
  const stored = await openRecord(scope, entity, id, tx, 'update');
  if (!stored) throw notThere();
  return knownRecord(scope, entity, stored, tx);
}

function requireOpen(scope: RecordScope, action: Action, record: RecordFacts): void {
  if (!holds(scope.access.doors.action(action.id).edit, record))
    throw new Refused(403, 'action-closed', 'You do not have permission to do this here.');
}

function requireVersion(scope: RecordScope, stored: KnownRecord, seen: string): void {
  const tag = tagOf(scope.access, stored);
  if (tag !== seen)
    throw new Refused(
      412,
      'changed-meanwhile',
      'Someone else has changed this record. Reload it, then make your change again.',
      {
        headers: { ETag: `"${tag}"` },
      },
    );
}

/** The result must be one that the viewer could have put there: the action, which is within rows, is open for it. */
function requirePlace(scope: RecordScope, action: Action, proposed: RecordFacts): void {
  if (!holds(scope.access.doors.action(action.id).edit, proposed))
    throw new Refused(
      403,
      'out-of-reach',
      'You cannot save these values, because you do not have permission for the resulting record.',
    );
}

/** Refuses the request if it writes any field that it may not. A hidden field is as one that does not exist. */
function requireWritable(entity: Entity, input: Input, levelOf: (field: EntityField) => Level): void {
  const problems: FieldProblem[] = [];
  let status = 403;
  for (const id of Object.keys(input)) {
    const field = entity.fields.find((one) => one.id === id);
    const level = field ? levelOf(field) : NONE;
    if (level === EDIT) continue;
    if (level === NONE) status = 422;
    problems.push({
      field: id,
      detail: level === NONE ? 'This field does not exist.' : 'You can read this field but cannot change it.',
    });
  }
  if (problems.length > 0)
    throw new Refused(status, 'field-closed', 'Nothing was changed, because some fields cannot be edited.', {
      errors: problems,
    });
}

function readInput(
  definition: Definition,
  entity: Entity,
  input: Input,
): { values: Values; problems: FieldProblem[] } {
  const values: Record<Id, Value | null> = {};
  const problems: FieldProblem[] = [];
  for (const field of entity.fields) {
    if (!Object.hasOwn(input, field.id)) continue;
    const reading = readValue(field, input[field.id]);
    if ('problem' in reading) problems.push({ field: field.id, detail: reading.problem });
    else if (
      field.type.kind === 'unit' &&
      reading.value !== null &&
      !unitAndBelow(definition, String(reading.value))
    )
      problems.push({ field: field.id, detail: 'This unit does not exist.' });
    else values[field.id] = reading.value;
  }
  return { values, problems };
}

/** The needed fields that are empty. One that the maker may not see has no name here. */
function missing(
  fields: readonly EntityField[],
  values: Values,
  levelOf: (field: EntityField) => Level,
): readonly FieldProblem[] {
  const empty = fields.filter((field) => field.required && (values[field.id] ?? null) === null);
  const named = empty.filter((field) => levelOf(field) > NONE);
  if (empty.length > named.length && named.length === 0)
    throw new Refused(403, 'action-closed', 'You do not have permission to do this here.');
  return named.map((field) => ({ field: field.id, detail: `${field.name} is required.` }));
}

function requireSound(problems: readonly FieldProblem[]): void {
  const first = problems.filter((one, i) => problems.findIndex((other) => other.field === one.field) === i);
  if (first.length > 0)
    throw new Refused(
      422,
      'values',
      'Nothing was changed, because some values are not valid. Check the marked fields.',
      {
        errors: first,
      },
    );
}

/**
 * A field may point only to a record that the writer may see; a hidden one is as one that does not exist,
 * also where the stored record points to it already: else one could ask which it is.
 */
async function requireTargets(
  scope: RecordScope,
  entity: Entity,
  values: Values,
  tx: Executor,
): Promise<void> {
  requireSound(await targetProblems(scope, entity, values, tx));
}

async function targetProblems(
  scope: RecordScope,
  entity: Entity,
  values: Values,
  tx: Executor,
): Promise<readonly FieldProblem[]> {
  const { tree } = scope.access.compiled;
  const problems: FieldProblem[] = [];
  for (const field of entity.fields) {
    const id = values[field.id];
    if (field.type.kind !== 'record' || typeof id !== 'string') continue;
    // Held until the end, so that it is not deleted under this write.
    if (!(await openRecord(scope, tree.need(field.type.entity, 'rows').node, id, tx, 'share')))
      problems.push({ field: field.id, detail: 'This record does not exist.' });
  }
  return problems;
}

async function store(
  scope: RecordScope,
  entity: Entity,
  stored: StoredRecord,
  values: Values,
  tx: Executor,
): Promise<StoredRecord> {
  await putRecord(scope, entity, stored.id, stored.version, values, tx);
  return { id: stored.id, version: stored.version + 1, values };
}

/** Does any record point to this one? */
export async function isPointedTo(
  scope: Place,
  definition: Definition,
  entity: Entity,
  id: Id,
  tx: Executor,
): Promise<boolean> {
  const points = definition.entities.flatMap((one) =>
    one.fields
      .filter((field) => field.type.kind === 'record' && field.type.entity === entity.id)
      .map((field) =>
        and(eq(records.entity, one.id), sql`${records.data} @> ${JSON.stringify({ [field.id]: id })}::jsonb`),
      ),
  );
  if (points.length === 0) return false;
  const [found] = await tx
    .select({ id: sql<Id>`records.id` })
    .from(namedRecords(scope))
    .where(and(eq(records.applicationId, scope.applicationId), eq(records.kind, scope.kind), or(...points)))
    .limit(1);
  return found !== undefined;
}

async function audit(
  tx: Executor,
  scope: RecordScope,
  writer: Writer,
  what: string,
  entity: Entity,
  record: Id,
): Promise<void> {
  if (scope.kind !== 'live' || scope.pane !== undefined) return;
  await tx.insert(auditEvents).values({
    applicationId: scope.applicationId,
    personId: writer.personId ?? null,
    standingIn: writer.standingIn ?? null,
    what,
    detail: { entity: entity.id, record },
  });
}
