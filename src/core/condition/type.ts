import type { Definition, Entity, EntityField } from '../model/definition';
import type { Id } from '../model/id';
import type { Value, Values, ValueType } from '../model/value-type';
import { isDate } from '../model/day';
import { plainDecimal } from '../model/value';
import { unitsOf } from '../model/units';
import { BUILT_IN_ATTRIBUTES, type Operand, type Operator } from './condition';
import { WEEKDAYS } from './clock';

/** The type of an operand: a value's, or a reading of the clock. */
export type Type =
  ValueType | { readonly kind: 'moment' } | { readonly kind: 'time' } | { readonly kind: 'weekday' };

/** What a condition can speak of: the definition and, where it is asked for a record, that record's entity. */
export interface Scope {
  readonly definition: Definition;
  readonly entity?: Entity | undefined;
}

export const attributesOf = (
  definition: Definition,
): readonly { readonly id: Id; readonly name: string; readonly type: ValueType }[] => [
  ...BUILT_IN_ATTRIBUTES,
  ...definition.attributes,
];

/** The entity whose fields `record.…` names: the scope's, or the one that its field `through` points to. */
export function entityFor({ definition, entity }: Scope, through: Id | undefined): Entity | undefined {
  if (through === undefined) return entity;
  const type = entity?.fields.find((field) => field.id === through)?.type;
  return type?.kind === 'record' ? definition.entities.find((one) => one.id === type.entity) : undefined;
}

export const fieldFor = (scope: Scope, operand: Extract<Operand, { record: Id }>): EntityField | undefined =>
  entityFor(scope, operand.through)?.fields.find((field) => field.id === operand.record);

const CLOCK_TYPES = {
  now: { kind: 'moment' },
  today: { kind: 'date' },
  time: { kind: 'time' },
  weekday: { kind: 'weekday' },
  day: { kind: 'number', decimals: 0 },
} as const satisfies Record<string, Type>;

/** The operand's type; undefined for a constant, and for what is not there. */
export function typeOf(scope: Scope, operand: Operand): Type | undefined {
  if ('user' in operand) return attributesOf(scope.definition).find((one) => one.id === operand.user)?.type;
  if ('session' in operand)
    return scope.definition.sessionValues.find((one) => one.id === operand.session)?.type;
  if ('record' in operand) return fieldFor(scope, operand)?.type;
  return 'clock' in operand ? CLOCK_TYPES[operand.clock] : undefined;
}

const ORDERED: readonly Operator[] = ['=', '!=', '<', '<=', '>', '>='];
const EQUAL: readonly Operator[] = ['=', '!='];

/** The operators that make sense of a type. */
export function operatorsFor({ kind }: Type): readonly Operator[] {
  switch (kind) {
    case 'text':
      return [...EQUAL, 'contains', 'starts with', 'ends with'];
    case 'number':
    case 'money':
    case 'date':
    case 'moment':
    case 'time':
      return ORDERED;
    default:
      return EQUAL;
  }
}

/** Do values of the type stand in an order, so that one can be between two others? */
export const canBeBetween = (type: Type): boolean => operatorsFor(type) === ORDERED;

/** Can a field of this type be one of several constants? */
export const canBeOneOf = ({ kind }: Type): boolean =>
  kind !== 'boolean' && kind !== 'moment' && kind !== 'time';

/** Can values of the two types be compared with each other? */
export function comparable(a: Type, b: Type): boolean {
  if (a.kind === 'choice' && b.kind === 'choice')
    return a.options.some((option) => b.options.some((other) => other.id === option.id));
  if (a.kind === 'record' && b.kind === 'record') return a.entity === b.entity;
  return familyOf(a) === familyOf(b);
}

const familyOf = ({ kind }: Type): string => (kind === 'money' ? 'number' : kind);

/** The type in words: "a date", "one of Sound, Stable, Fragile". */
export function typeInWords(definition: Definition, type: Type): string {
  switch (type.kind) {
    case 'text':
      return 'a text';
    case 'number':
    case 'money':
      return 'a number';
    case 'date':
      return 'a date';
    case 'boolean':
      return 'true or false';
    case 'choice':
      return `one of ${type.options.map((option) => option.name).join(', ')}`;
    case 'record':
      return `one ${definition.entities.find((one) => one.id === type.entity)?.name ?? 'record'}`;
    case 'unit':
      return 'a unit';
    case 'moment':
      return 'a moment';
    case 'time':
      return 'a time of day';
    case 'weekday':
      return 'a weekday';
  }
}

/** The constant in its type's plain form, or undefined where the type cannot hold it. */
export function readConstant(definition: Definition, type: Type, value: Value): Value | undefined {
  if (type.kind === 'boolean') return typeof value === 'boolean' ? value : undefined;
  if (typeof value !== 'string') return undefined;
  switch (type.kind) {
    case 'text':
      return value;
    case 'record':
      return /^[A-Za-z0-9_-]{1,64}$/.test(value) ? value : undefined;
    case 'number':
    case 'money':
      return /^-?\d{1,15}(\.\d{1,10})?$/.test(value) ? plainDecimal(value) : undefined;
    case 'date':
      return isDate(value) ? value : undefined;
    case 'choice':
      return type.options.some((option) => option.id === value) ? value : undefined;
    case 'unit':
      return unitsOf(definition).some((unit) => unit.id === value) ? value : undefined;
    case 'time':
      return /^([01]\d|2[0-3]):[0-5]\d$/.test(value) ? value : undefined;
    case 'moment': {
      const [, date, time] =
        /^(\d{4}-\d{2}-\d{2})T((?:[01]\d|2[0-3]):[0-5]\d(?::[0-5]\d)?)$/.exec(value) ?? [];
      if (!date || !time || !isDate(date)) return undefined;
      return `${date}T${time.length === 5 ? `${time}:00` : time}`;
    }
    case 'weekday':
      return (WEEKDAYS as readonly string[]).includes(value) ? value : undefined;
  }
}

/** A text stands where a record is meant: what is wrong, and the mend. */
export function pointsNotText(
  definition: Definition,
  type: Extract<Type, { kind: 'record' }>,
  text: string,
): [message: string, mend: string] {
  const entity = definition.entities.find((one) => one.id === type.entity);
  const label = entity?.fields.find((one) => one.id === entity.labelField);
  const name = entity?.name ?? 'record';
  return [
    `“${text}” is a text, and this points to one ${name}.`,
    `Pick one ${name}, which is written as #id; or compare a text of it, such as its ${label?.name ?? 'name'}.`,
  ];
}

/** How a constant of the type is written, as an example for people. */
export function exampleOf(definition: Definition, type: Type): string {
  switch (type.kind) {
    case 'text':
      return '"some text"';
    case 'number':
    case 'money':
      return '12.50';
    case 'date':
      return '2026-03-14';
    case 'boolean':
      return 'true';
    case 'choice':
      return JSON.stringify(type.options[0]?.name ?? '');
    case 'record':
      return '#id';
    case 'unit':
      return JSON.stringify(unitsOf(definition)[0]?.name ?? '');
    case 'time':
      return '09:30';
    case 'moment':
      return '2026-03-14T09:30';
    case 'weekday':
      return 'Monday';
  }
}

/** Of what was given, the values that are of the declared types. */
export function readConstants(
  definition: Definition,
  declared: readonly { readonly id: Id; readonly type: Type }[],
  given: Readonly<Record<string, Value | null | undefined>>,
): Values {
  const values: Record<string, Value> = {};
  for (const { id, type } of declared) {
    const value = given[id];
    const read = value === undefined || value === null ? undefined : readConstant(definition, type, value);
    if (read !== undefined) values[id] = read;
  }
  return values;
}
