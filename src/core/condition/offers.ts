import type { Id } from '../model/id';
import { unitsOf } from '../model/units';
import type { Value, ValueType } from '../model/value-type';
import { WEEKDAYS } from './clock';
import { CLOCK_READINGS, type ClockReading, type Operator } from './condition';
import { pathWord, quotedName } from './names';
import { constantInWords } from './print';
import { REGISTERED } from './registered';
import {
  attributesOf,
  canBeBetween,
  canBeOneOf,
  comparable,
  entityFor,
  operatorsFor,
  typeInWords,
  typeOf,
  type Scope,
  type Type,
} from './type';

/** Something that could be written next. */
export interface Offer {
  readonly text: string;
  readonly about: string;
}

const VIEWER_QUESTIONS: readonly Offer[] = [
  { text: 'user has role', about: 'the viewer holds a role' },
  { text: 'user has privilege', about: 'the viewer holds a privilege' },
  { text: 'user in group', about: 'the viewer is in a group' },
];

/** What a condition can begin with. */
export function beginnings(scope: Scope): Offer[] {
  return [
    ...operandOffers(scope),
    ...VIEWER_QUESTIONS,
    { text: 'not', about: 'the opposite of what follows' },
    ...scope.definition.conditions.map((one) => ({
      text: `meets ${quotedName(scope.definition.conditions, one.id)}`,
      about: 'a named condition',
    })),
    ...REGISTERED.map((one) => ({ text: `${one.name}(`, about: one.about })),
  ];
}

/** Every operand that there is; beside one of a type, those that can be compared with it. */
export function operandOffers(scope: Scope, beside?: Type): Offer[] {
  const { definition, entity } = scope;
  const fits = (type: Type): boolean => !beside || comparable(beside, type);
  const many = (root: string, among: readonly { id: Id; name: string; type: ValueType }[]): Offer[] =>
    among
      .filter((one) => fits(one.type))
      .map((one) => ({
        text: `${root}.${pathWord(among, one.id)}`,
        about: `${one.name}: ${typeInWords(definition, one.type)}`,
      }));
  const steps = (entity?.fields ?? []).flatMap((field) =>
    field.type.kind === 'record' && entity
      ? many(`record.${pathWord(entity.fields, field.id)}`, entityFor(scope, field.id)?.fields ?? [])
      : [],
  );
  return [
    ...many('record', entity?.fields ?? []),
    ...many('user', attributesOf(definition)),
    ...many('session', definition.sessionValues),
    ...CLOCK_READINGS.filter((clock) => fits(typeOf(scope, { clock }) as Type)).map((clock) => ({
      text: clock,
      about: CLOCK_WORDS[clock],
    })),
    ...steps,
  ];
}

/** The constants of a type that can be listed. */
export function constantOffers(scope: Scope, type: Type): Offer[] {
  const { definition } = scope;
  const write = (value: Value): Offer => ({
    text: constantInWords(scope, value, type),
    about: 'a constant',
  });
  switch (type.kind) {
    case 'choice':
      return type.options.map((option) => write(option.id));
    case 'unit':
      return unitsOf(definition).map((unit) => write(unit.id));
    case 'boolean':
      return [write(true), write(false)];
    case 'weekday':
      return WEEKDAYS.map(write);
    default:
      return [];
  }
}

const CLOCK_WORDS: Readonly<Record<ClockReading, string>> = {
  now: 'this moment',
  today: "today's date",
  time: 'the time of day',
  weekday: 'the day of the week',
  day: 'the day of the month',
};

/** How something of a type can be asked of. */
export function operatorOffers(type: Type): Offer[] {
  return [
    ...operatorsFor(type).map((text) => ({ text, about: OPERATOR_WORDS[text] })),
    ...(canBeBetween(type) ? [{ text: 'between', about: 'from one to another, both included' }] : []),
    ...(canBeOneOf(type) ? [{ text: 'in (', about: 'one of several' }] : []),
    ...(type.kind === 'unit' ? [{ text: 'in unit', about: 'that unit or below it' }] : []),
    { text: 'is empty', about: 'nothing is written there' },
    { text: 'is not empty', about: 'something is written there' },
  ];
}

const OPERATOR_WORDS: Readonly<Record<Operator, string>> = {
  '=': 'is',
  '!=': 'is not',
  '<': 'less, or before',
  '<=': 'at most',
  '>': 'more, or after',
  '>=': 'at least',
  contains: 'has this in it',
  'starts with': 'begins with this',
  'ends with': 'has this at its end',
};
