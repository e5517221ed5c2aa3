import type { Definition, Entity, EntityField } from '../model/definition';
import type { ValueType } from '../model/value-type';
import { holdsAll, typeKey } from '../model/values';

/** A field whose records hold values of another type by now. */
export interface Conversion {
  /** As it is from now on. */
  readonly entity: Entity;
  readonly field: EntityField;
  readonly from: ValueType;
}

/**
 * The fields whose stored values have to be looked at where one definition takes the place of another: those that
 * hold another type, or no longer all that they held. Widening a type back is among them, since what did not fit was
 * kept and may fit again.
 */
export function conversionsOf(before: Definition, after: Definition): readonly Conversion[] {
  if (before.entities === after.entities) return [];
  return after.entities.flatMap((entity) => {
    const was = before.entities.find(({ id }) => id === entity.id);
    if (!was || was === entity) return [];
    return entity.fields.flatMap((field) => {
      const from = was.fields.find(({ id }) => id === field.id)?.type;
      if (!from || typeKey(from) === typeKey(field.type)) return [];
      // Both ways: what is wider now may have been narrower before, when something did not fit.
      return holdsAll(from, field.type) && holdsAll(field.type, from) ? [] : [{ entity, field, from }];
    });
  });
}

/** Something of the data that is gone with a definition, or that its records do not have yet. */
export interface Lost {
  readonly what: 'entity' | 'field' | 'needed';
  readonly entity: Entity;
  /** Undefined for a whole entity. */
  readonly field?: EntityField;
}

/** What goes with one definition where another takes its place; and what is needed from then on. */
export function lostBetween(before: Definition, after: Definition): readonly Lost[] {
  const gone = before.entities.flatMap((entity): readonly Lost[] => {
    const now = after.entities.find(({ id }) => id === entity.id);
    if (!now) return [{ what: 'entity', entity }];
    return entity.fields
      .filter(({ id }) => !now.fields.some((one) => one.id === id))
      .map((field) => ({ what: 'field', entity, field }));
  });
  const needed = after.entities.flatMap((entity) => {
    const was = before.entities.find(({ id }) => id === entity.id);
    return !was
      ? []
      : entity.fields
          .filter(({ id, required }) => required && !was.fields.find((one) => one.id === id)?.required)
          .map((field): Lost => ({ what: 'needed', entity, field }));
  });
  return [...gone, ...needed];
}
