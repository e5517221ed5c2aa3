import { answerOf, EDIT, type KnownRecord } from '@/core/access';
import { compile } from '@/core';
import type { Action, Entity, EntityField, Id, Values } from '@/core/model';
import { acted, making, type Predictor, written } from '@/core/sweep';
import { type Asking, VERSION } from '../asker';
import {
  type SweepContext,
  base,
  type Case,
  doorsOf,
  isOpen,
  levelsOn,
  may,
  MISSING_ID,
  ofEachSort,
  recordsOf,
} from './case';
import { filled, hiddenFor, other, SINCE_HIDDEN } from './values';

/** Of so few doors each combination is asked about. */
const FEW = 5;

/** Every change of records, one by one and of several fields at once: those that must be refused, and those that must be done. */
export function* writing(asked: SweepContext, entity: Entity): Generator<Case> {
  const { tree } = asked.access.compiled;
  const records = recordsOf(asked, entity.id);
  const update = tree.action(entity, 'update');
  // What is done is answered with the record as they see it then.
  const all = doorsOf(asked, entity);
  const ofRecords = [entity, update, tree.action(entity, 'create')].map(({ id }) => asked.access.element(id));
  /** What is tried on a record of each sort, by what decides about it. */
  const onEach = (
    topic: Id,
    by: readonly Id[],
    sortOf: (record: KnownRecord) => string | boolean,
    cases: (record: KnownRecord) => Iterable<Case>,
  ): Iterable<Case> => {
    const doors = by.map((id) => asked.access.element(id));
    const main = doors.length < FEW ? doors : ofRecords;
    return asked.once(topic, main, all, () =>
      ofEachSort(asked, records, (one) => `${levelsOn(asked, doors, one)} ${sortOf(one)}`).flatMap(
        (record) => [...cases(record)],
      ),
    );
  };
  for (const field of entity.fields) {
    const { id, type } = field;
    const doors = [entity.id, update.id, id, ...(type.kind === 'record' ? [type.entity] : [])];
    const isDone = (record: KnownRecord): boolean => {
      const to = other(asked, field, record);
      return to !== undefined && written(asked.access, record, { [id]: to }) !== undefined;
    };
    yield* onEach(`${id} written`, doors, isDone, (record) => ofField(asked, record, field));
  }
  for (const action of entity.actions)
    yield* onEach(
      action.id,
      [entity.id, action.id],
      () => '',
      (record) => byAction(asked, record, action),
    );
  const areDone = (record: KnownRecord): boolean =>
    written(asked.access, record, others(asked, record)) !== undefined;
  yield* onEach(
    `${entity.id} written`,
    all.map(({ id }) => id),
    areDone,
    (record) => ofAll(asked, record),
  );
  yield* asked.once(`${entity.id} otherwise`, ofRecords, all, function* () {
    for (const cases of [nowhere, meanwhile, creating]) yield* cases(asked, entity);
  });
}

function path({ copy }: SweepContext, { entity, id }: KnownRecord): string {
  return `${base(copy)}/api/records/${entity.id}/${id}`;
}

/** The version that the viewer has seen: as the record's own answer tells it, where they may read it. */
const seen = (asked: SweepContext, record: KnownRecord): Pick<Asking, 'seen' | 'headers'> => ({
  headers: { 'if-match': `"${VERSION}"` },
  seen: path(asked, record),
});

function* ofField(asked: SweepContext, record: KnownRecord, field: EntityField): Generator<Case> {
  const to = other(asked, field, record);
  if (to !== undefined) yield change(asked, record, { [field.id]: to }, field.id);
  const hidden = hiddenFor(asked, field);
  if (hidden && may(asked, field.id, record))
    yield {
      ...patch(asked, record, { [field.id]: hidden }),
      refused: true,
      since: SINCE_HIDDEN,
      about: field.id,
    };
}

/** All fields at once: refused whole where one is closed. */
function* ofAll(asked: SweepContext, record: KnownRecord): Generator<Case> {
  const values = others(asked, record);
  if (Object.keys(values).length > 1) yield change(asked, record, values, record.entity.id);
}

/** Another value of each field that can have one. */
const others = (asked: SweepContext, record: KnownRecord): Values =>
  Object.fromEntries(
    record.entity.fields.flatMap((field) => {
      const to = other(asked, field, record);
      return to === undefined ? [] : [[field.id, to] as const];
    }),
  );

const patch = (asked: SweepContext, record: KnownRecord, values: Values): { asking: Asking } => ({
  asking: { method: 'PATCH', path: path(asked, record), ...seen(asked, record), body: { values } },
});

function change(asked: SweepContext, record: KnownRecord, values: Values, about: Id): Case {
  const request = { ...patch(asked, record, values), about, ...asNowhere(asked, record, about) };
  const then = isOpen(asked, record) ? written(asked.access, record, values) : undefined;
  return then ? { ...request, does: becoming(asked.predictor, then) } : { ...request, refused: true };
}

/** What is written to a record that there is not, and to a field that there is not. */
function* nowhere(asked: SweepContext, entity: Entity): Generator<Case> {
  const none: KnownRecord = { entity, id: MISSING_ID, values: {} };
  const [field] = entity.fields;
  if (field)
    yield {
      ...patch(asked, none, { [field.id]: other(asked, field, none) ?? null }),
      refused: true,
      alike: { to: `write ${entity.id}`, but: MISSING_ID },
    };
  const open = recordsOf(asked, entity.id).find((record) => isOpen(asked, record));
  if (open)
    yield {
      ...patch(asked, open, { [MISSING_ID]: 'Swept' }),
      refused: true,
      ...asNowhere(asked, open, MISSING_ID),
    };
}

/** What is hidden must be answered as what is not there: the record, or the field of a record that may be changed. */
function asNowhere(asked: SweepContext, record: KnownRecord, field: Id): Pick<Case, 'alike'> {
  const { access, copy } = asked;
  const { id: entity } = record.entity;
  if (!isOpen(asked, record)) return { alike: { to: `write ${entity}`, but: record.id } };
  const known = compile(copy.definition).tree.get(field)?.kind === 'data-field';
  const hidden = field === MISSING_ID || (known && access.answer(access.element(field)).most === 0);
  const update = access.compiled.tree.action(record.entity, 'update').id;
  return hidden && may(asked, update, record)
    ? { alike: { to: `write a field of ${entity}`, but: field } }
    : {};
}

/**
 * Somebody else writes to a record in the meantime: to a field that is hidden from the viewer, and its version stays as it
 * was; to one that they see, and it is another.
 */
function* meanwhile(asked: SweepContext, entity: Entity): Generator<Case> {
  const { access, predictor } = asked;
  for (const isSeen of [false, true]) {
    const found = recordsOf(asked, entity.id)
      .filter((record) => isOpen(asked, record))
      .flatMap((record) =>
        entity.fields.flatMap((field) => {
          const to = field.type.kind === 'text' ? 'Meanwhile' : undefined;
          const then = to && { ...record, values: { ...record.values, [field.id]: to } };
          if (!then || access.level(access.element(field.id), record) > 0 !== isSeen) return [];
          const [before, after] = [record, then].map((one) => levelsOn(asked, doorsOf(asked, entity), one));
          return before === after ? [{ field, record, then }] : [];
        }),
      )[0];
    if (!found) continue;
    const { field, record, then } = found;
    const becomes = new Map([[then.id, then]]);
    const by = predictor.after(becomes);
    yield {
      asking: { path: path(asked, record) },
      does: { becomes, predicted: by.one(then), by },
      meanwhile: { record: then, version: isSeen ? 'another' : 'same' },
      about: field.id,
    };
  }
}

/** That the record becomes this one, and is answered. */
function becoming(predictor: Predictor, then: KnownRecord) {
  const by = predictor.after(new Map([[then.id, then]]));
  return { becomes: new Map([[then.id, then]]), predicted: by.one(then), by };
}

function* byAction(asked: SweepContext, record: KnownRecord, action: Action): Generator<Case> {
  const about = action.id;
  if (action.kind === 'delete') {
    const asking = { method: 'DELETE', path: path(asked, record), ...seen(asked, record) };
    const goes = may(asked, action.id, record) && !asked.records.some((one) => pointsTo(one, record));
    const becomes = new Map([[record.id, undefined]]);
    yield goes
      ? { asking, does: { becomes, by: asked.predictor.after(becomes) }, about }
      : { asking, refused: true, about };
  }
  if (action.kind !== 'named' || Object.keys(action.sets).length === 0) return;
  const asking = {
    method: 'POST',
    path: `${path(asked, record)}/actions/${action.id}`,
    ...seen(asked, record),
    body: {},
  };
  const then = isOpen(asked, record) ? acted(asked.access, record, action) : undefined;
  if (!then) {
    yield { asking, refused: true, about };
    return;
  }
  const { predicted, ...does } = becoming(asked.predictor, then);
  // What goes out of sight by it is done, and not shown.
  yield { asking, does: isOpen(asked, then) ? { ...does, predicted } : does, about };
}

const pointsTo = (one: KnownRecord, to: KnownRecord): boolean =>
  one.entity.fields.some(
    ({ id, type }) => type.kind === 'record' && type.entity === to.entity.id && one.values[id] === to.id,
  );

function* creating(asked: SweepContext, entity: Entity): Generator<Case> {
  const { access, copy, predictor } = asked;
  const create = entity.actions.find(({ kind }) => kind === 'create');
  if (!create) return;
  const about = create.id;
  const values = filled(asked, entity);
  const to = (sent: Values): Asking => ({
    method: 'POST',
    path: `${base(copy)}/api/records/${entity.id}`,
    body: { values: sent },
  });
  const made = making(access, entity, values);
  if (made) yield { asking: to(made.sent), does: { makes: made.made, by: predictor }, about };
  // Nobody makes one with a field that is closed to them, or where making is.
  const closed = Object.keys(values).some((id) => !Object.hasOwn(made?.sent ?? values, id));
  if (closed || access.answer(access.element(create.id)).most === 0)
    yield { asking: to(values), refused: true, about };
  // What it needs and they may not write is lacking: it is not made, and that field not named.
  const open = Object.entries(values).filter(([id]) => answerOf(access.doors.field(id, 'new')).most === EDIT);
  if (!made && open.length > 0) yield { asking: to(Object.fromEntries(open)), refused: true, about };
  for (const field of entity.fields) {
    const hidden = hiddenFor(asked, field);
    if (made && hidden && Object.hasOwn(made.sent, field.id))
      yield { asking: to({ ...made.sent, [field.id]: hidden }), refused: true, since: SINCE_HIDDEN, about };
  }
}
