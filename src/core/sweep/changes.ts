import type { Access } from '../access/deciding/access';
import { EDIT, NONE } from '../access/deciding/level';
import { answerOf, levelOn } from '../access/deciding/rule';
import type { KnownRecord } from '../access/sent/resolve';
import type { Action, Entity } from '../model/definition';
import type { Id } from '../model/id';
import type { Values } from '../model/value-type';

const may = (access: Access, id: Id, record: KnownRecord): boolean =>
  access.level(access.element(id), record) === EDIT;

const withValues = (record: KnownRecord, values: Values): KnownRecord => ({
  ...record,
  values: { ...record.values, ...values },
});

/**
 * The record as it is once the viewer has written these values to it in one request; undefined where that must be refused.
 * It counts as the chain of requests that it could have been: what opens by the first step may be written in the next
 * (access.md 10).
 */
export function written(access: Access, record: KnownRecord, values: Values): KnownRecord | undefined {
  const update = access.compiled.tree.action(record.entity, 'update').id;
  const inChain = new Set<Id>();
  let now = record;
  while (may(access, update, now)) {
    const next = Object.keys(values).filter((id) => !inChain.has(id) && may(access, id, now));
    if (next.length === 0) break;
    now = withValues(now, Object.fromEntries(next.map((id) => [id, values[id] ?? null])));
    if (may(access, update, now)) for (const id of next) inChain.add(id);
  }
  const all = Object.keys(values).every((id) => inChain.has(id) || may(access, id, record));
  const then = withValues(record, values);
  return all && may(access, update, record) && may(access, update, then) ? then : undefined;
}

/**
 * The record once the viewer has run a named action on it; undefined where that must be refused. It is decided on the
 * record as it is: what comes of it only has to hold what a record needs.
 */
export function acted(
  access: Access,
  record: KnownRecord,
  action: Extract<Action, { kind: 'named' }>,
): KnownRecord | undefined {
  const then = withValues(record, action.sets);
  const isWhole = record.entity.fields.every(
    ({ id, required }) => !required || !Object.hasOwn(action.sets, id) || (then.values[id] ?? null) !== null,
  );
  return may(access, action.id, record) && isWhole ? then : undefined;
}

/**
 * A new record with as many of these values as its maker may write, and `readable`: whether they may see it then;
 * undefined where they may not make one like that, or something that it needs is not among them.
 */
export function making(
  access: Access,
  entity: Entity,
  values: Values,
): { readonly sent: Values; readonly made: KnownRecord; readonly readable: boolean } | undefined {
  const { doors, compiled } = access;
  const initial = Object.fromEntries(entity.fields.map((field) => [field.id, field.initial ?? null]));
  let sent: Values = Object.fromEntries(
    Object.entries(values).filter(([id]) => answerOf(doors.field(id, 'new')).most === EDIT),
  );
  for (;;) {
    const made: KnownRecord = { entity, id: '', values: { ...initial, ...sent } };
    const open = Object.entries(sent).filter(([id]) => levelOn(doors.field(id, 'new'), made) === EDIT);
    if (open.length < Object.keys(sent).length) {
      sent = Object.fromEntries(open);
      continue;
    }
    const create = doors.action(compiled.tree.action(entity, 'create').id);
    const isWhole = entity.fields.every(
      ({ id, required }) => !required || (made.values[id] ?? null) !== null,
    );
    if (!isWhole || levelOn(create, made) < EDIT) return undefined;
    return { sent, made, readable: levelOn(doors.rows(entity.id), made) > NONE };
  }
}
