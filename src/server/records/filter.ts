import { parse } from '@/core';
import { type Access, type FilterField, NONE } from '@/core/access';
import {
  allWithin,
  bind,
  type Condition,
  type Formula,
  partsOf,
  pathWord,
  type Scope as Terms,
} from '@/core/condition';
import { type Entity, unitsOf } from '@/core/model';
import { Refused } from '../http/problem';

/**
 * What a filter can speak of: the fields that the viewer may see on some record, by the same words as
 * conditions; of themselves and the time. A pointed-to record is what it is called, since that is all that
 * they see of it. Nothing else has a name here, so that no error can tell of it.
 */
export function filterTerms(access: Access, entity: Entity): Terms & { readonly entity: Entity } {
  const fields = entity.fields
    .filter((field) => access.level(access.element(field.id), undefined) > NONE)
    .map((field) => (field.type.kind === 'record' ? { ...field, type: { kind: 'text' } as const } : field));
  const seen = { ...entity, fields };
  const { definition } = access.compiled;
  return {
    entity: seen,
    definition: {
      ...definition,
      entities: [seen],
      units: fields.some((field) => field.type.kind === 'unit') ? definition.units : [],
      roles: [],
      privileges: [],
      groups: [],
      conditions: [],
      attributes: [],
      sessionValues: [],
    },
  };
}

/** Each may be asked of every record. */
const MOST_QUESTIONS = 25;

/**
 * A filter in the text form of conditions, as what it takes of a record. A field that the viewer may not see
 * on a record cannot be told there, also under *not* and *is empty*: then the record is not matched.
 */
export function readFilter(access: Access, entity: Entity, text: string): Formula {
  if (text.trim() === '') return true;
  const terms = filterTerms(access, entity);
  const parsed = parse(terms, text);
  if (!parsed.ok) {
    const { place, message, mend } = parsed.problem;
    throw new Refused(422, 'filter', `The filter has an error ${place}: ${message} ${mend}`);
  }
  const questions = allWithin(parsed.value).filter((one) => partsOf(one).length === 0).length;
  if (questions > MOST_QUESTIONS)
    throw new Refused(
      422,
      'filter',
      `The filter has ${questions} comparisons, but at most ${MOST_QUESTIONS} are allowed. Simplify the filter.`,
    );
  return filterFormula(access, terms, parsed.value);
}

export const filterFormula = (access: Access, terms: Terms, condition: Condition): Formula =>
  bind(
    access.held.facts,
    terms,
    condition,
    'be true',
    ({ field }) => access.doors.field(field, 'existing').see,
  );

/** The fields that the viewer can filter by, as they are written. A unit is offered as a choice. */
export function filterFields(access: Access, entity: Entity): FilterField[] {
  const { fields } = filterTerms(access, entity).entity;
  const { definition } = access.compiled;
  return fields.map(({ id, name, type }) => ({
    path: `record.${pathWord(fields, id)}`,
    label: name,
    type: type.kind === 'unit' ? { kind: 'choice', options: unitsOf(definition) } : type,
  }));
}
