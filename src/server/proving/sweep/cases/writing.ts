import type { KnownRecord } from '@/core/access';
import { compile } from '@/core';
import type { Action, Entity, EntityField, Id, Values } from '@/core/model';
import { acted, making, type Predictor, written } from '@/core/sweep';
import { tagOf } from '../../../records/tag';
import type { Asking } from '../asker';
import { type Asked, base, type Case, isOpen, may, NONESUCH, recordsOf, TRIED } from './case';
import { filled, other } from './values';

/** Every change of records, one by one and of several fields at once: those that must be refused, and those that must be done. */
export function* writing(asked: Asked): Generator<Case> {
  for (const entity of asked.copy.definition.entities) {
    for (const record of recordsOf(asked, entity.id).slice(0, TRIED)) {
      for (const field of entity.fields) yield* ofField(asked, record, field);
      yield* ofAll(asked, record);
      for (const action of entity.actions) yield* byAction(asked, record, action);
    }
    yield* nowhere(asked, entity);
    yield* creating(asked, entity);
  }
}

function path({ copy }: Asked, { entity, id }: KnownRecord): string {
  return `${base(copy)}/api/records/${entity.id}/${id}`;
}

const seen = ({ access }: Asked, record: KnownRecord): Readonly<Record<string, string>> => ({
  'if-match': `"${tagOf(access, record)}"`,
});

function* ofField(asked: Asked, record: KnownRecord, field: EntityField): Generator<Case> {
  const to = other(asked, field, record);
  if (to !== undefined) yield change(asked, record, { [field.id]: to }, field.id);
  if (field.type.kind !== 'record' || !may(asked, field.id, record)) return;
  // What is hidden is not there to be pointed to.
  const hidden = recordsOf(asked, field.type.entity).find((one) => !isOpen(asked, one));
  if (hidden) yield { ...patch(asked, record, { [field.id]: hidden.id }), refused: true, about: field.id };
}

/** All fields at once: refused whole where one is closed. */
function* ofAll(asked: Asked, record: KnownRecord): Generator<Case> {
  const values = record.entity.fields.flatMap((field) => {
    const to = other(asked, field, record);
    return to === undefined ? [] : [[field.id, to] as const];
  });
  if (values.length > 1) yield change(asked, record, Object.fromEntries(values), record.entity.id);
}

const patch = (asked: Asked, record: KnownRecord, values: Values): { asking: Asking } => ({
  asking: { method: 'PATCH', path: path(asked, record), headers: seen(asked, record), body: { values } },
});

function change(asked: Asked, record: KnownRecord, values: Values, about: Id): Case {
  const request = { ...patch(asked, record, values), about, ...asNowhere(asked, record, about) };
  const then = isOpen(asked, record) ? written(asked.access, record, values) : undefined;
  return then ? { ...request, does: becoming(asked.predictor, then) } : { ...request, refused: true };
}

/** What is written to a record that there is not, and to a field that there is not. */
function* nowhere(asked: Asked, entity: Entity): Generator<Case> {
  const none: KnownRecord = { entity, id: NONESUCH, values: {} };
  const [field] = entity.fields;
  if (field)
    yield {
      ...patch(asked, none, { [field.id]: other(asked, field, none) ?? null }),
      refused: true,
      alike: { to: `write ${entity.id}`, but: NONESUCH },
    };
  const open = recordsOf(asked, entity.id).find((record) => isOpen(asked, record));
  if (open)
    yield {
      ...patch(asked, open, { [NONESUCH]: 'Swept' }),
      refused: true,
      ...asNowhere(asked, open, NONESUCH),
    };
}

/** What is hidden must be answered as what is not there: the record, or the field of a record that may be changed. */
function asNowhere(asked: Asked, record: KnownRecord, field: Id): Pick<Case, 'alike'> {
  const { access, copy } = asked;
  const { id: entity } = record.entity;
  if (!isOpen(asked, record)) return { alike: { to: `write ${entity}`, but: record.id } };
  const known = compile(copy.definition).tree.get(field)?.kind === 'data-field';
  const hidden = field === NONESUCH || (known && access.answer(access.element(field)).most === 0);
  const update = access.compiled.tree.action(record.entity, 'update').id;
  return hidden && may(asked, update, record)
    ? { alike: { to: `write a field of ${entity}`, but: field } }
    : {};
}

/** That the record becomes this one, and is answered. */
function becoming(predictor: Predictor, then: KnownRecord) {
  const by = predictor.after(new Map([[then.id, then]]));
  return { becomes: new Map([[then.id, then]]), predicted: by.one(then), by };
}

function* byAction(asked: Asked, record: KnownRecord, action: Action): Generator<Case> {
  const about = action.id;
  const headers = seen(asked, record);
  if (action.kind === 'delete') {
    const asking = { method: 'DELETE', path: path(asked, record), headers };
    const goes = may(asked, action.id, record) && !asked.records.some((one) => pointsTo(one, record));
    const becomes = new Map([[record.id, undefined]]);
    yield goes
      ? { asking, does: { becomes, by: asked.predictor.after(becomes) }, about }
      : { asking, refused: true, about };
  }
  if (action.kind !== 'named' || Object.keys(action.sets).length === 0) return;
  const asking = { method: 'POST', path: `${path(asked, record)}/actions/${action.id}`, headers, body: {} };
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

function* creating(asked: Asked, entity: Entity): Generator<Case> {
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
}
