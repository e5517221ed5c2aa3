import type { Definition, Entity, EntityField } from '../model/definition';
import type { Id } from '../model/id';
import type { Value, Values, ValueType } from '../model/value-type';
import { VALUE_KINDS } from '../model/values';
import type { ComparedKind, Named, Names } from '../model/values/kind';
import { CLOCK_KINDS, type ClockType } from './clock-kinds';
import { BUILT_IN_ATTRIBUTES, type Operand } from './condition';
import { LITERALS } from './literals';
import { operatorsThatAsk, type Operator } from './operators';
import { withArticle } from '../model/article';

/** The type of an operand: a value's, or a reading of the clock. */
export type Type = ValueType | ClockType;

const KINDS = { ...VALUE_KINDS, ...CLOCK_KINDS };

/** What can be asked of values of the type. */
export const comparedKind = (type: Type): ComparedKind<Type> =>
  KINDS[type.kind] as unknown as ComparedKind<Type>;

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

/** The operators that make sense of a type. */
export const operatorsFor = (type: Type): readonly Operator[] => operatorsThatAsk(comparedKind(type).asks);

/** Do values of the type stand in an order, so that one can be between two others? */
export const canBeBetween = (type: Type): boolean => comparedKind(type).asks === 'order';

/** Can a field of this type be one of several constants? */
export const canBeOneOf = (type: Type): boolean => comparedKind(type).oneOf;

/** Can values of the two types be compared with each other? */
export function comparable(a: Type, b: Type): boolean {
  const kind = comparedKind(a);
  return kind.family === comparedKind(b).family && (kind.comparable?.(a, b) ?? true);
}

/** The type in words: "a date", "one of Sound, Stable, Fragile". */
export const typeInWords = (definition: Definition, type: Type): string =>
  comparedKind(type).sentence(type, definition);

/** All values of the type, where they are listed; else none. */
export const listedOf = (names: Names, type: Type): readonly Named[] =>
  comparedKind(type).listed?.(type, names) ?? [];

/** The constant in its type's plain form, or undefined where the type cannot hold it. */
export function readConstant(definition: Definition, type: Type, value: Value): Value | undefined {
  const { form, constant } = comparedKind(type);
  if (form === 'boolean') return typeof value === 'boolean' ? value : undefined;
  return typeof value === 'string' ? constant(value, type, definition) : undefined;
}

/** The constant that a comparison with something of the type starts with. */
export function firstConstant(names: Names, type: Type): Value {
  const { form, start } = comparedKind(type);
  if (form === 'boolean') return true;
  return start?.(new Date().toISOString().slice(0, 10)) ?? listedOf(names, type)[0]?.id ?? '';
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
    `“${text}” is text, but this field refers to ${withArticle(name)} record.`,
    `Choose ${withArticle(name)} record (written as #id), or compare one of its text fields, such as ${label?.name ?? 'name'}.`,
  ];
}

/** A constant as it is written beside something of this type. */
export function constantInWords(names: Names, value: Value, type: Type): string {
  if (typeof value === 'boolean') return String(value);
  const { literal } = comparedKind(type);
  return LITERALS[literal === 'truth' ? 'string' : literal].write(value, listedOf(names, type));
}

/** How a constant of the type is written, as an example for people. */
export function exampleOf(definition: Definition, type: Type): string {
  const [first] = listedOf(definition, type);
  return comparedKind(type).example ?? (first ? constantInWords(definition, first.id, type) : '""');
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
