import type { Id } from '../model/id';
import type { Value, ValueType } from '../model/value-type';
import { CLOCK_READINGS, type ClockReading } from './condition';
import { pathWord, quotedName } from './names';
import { OPERATORS } from './operators';
import { REGISTERED } from './registered';
import {
  attributesOf,
  canBeBetween,
  canBeOneOf,
  comparable,
  comparedKind,
  constantInWords,
  entityFor,
  listedOf,
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
  { text: 'user has role', about: 'the viewer has a role' },
  { text: 'user has privilege', about: 'the viewer has a privilege' },
  { text: 'user in group', about: 'the viewer is in a group' },
];

/** What a condition can begin with. */
export function beginnings(scope: Scope): Offer[] {
  return [
    ...operandOffers(scope),
    ...VIEWER_QUESTIONS,
    { text: 'not', about: 'the opposite of what comes next' },
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
    text: constantInWords(definition, value, type),
    about: 'a constant',
  });
  if (comparedKind(type).form === 'boolean') return [write(true), write(false)];
  return listedOf(definition, type).map(({ id }) => write(id));
}

const CLOCK_WORDS: Readonly<Record<ClockReading, string>> = {
  now: 'the current date and time',
  today: "today's date",
  time: 'the time of day',
  weekday: 'the day of the week',
  day: 'the day of the month',
};

/** How something of a type can be asked of. */
export function operatorOffers(type: Type): Offer[] {
  return [
    ...operatorsFor(type).map((text) => ({ text, about: OPERATORS[text].about })),
    ...(canBeBetween(type) ? [{ text: 'between', about: 'from one value to another, including both' }] : []),
    ...(canBeOneOf(type) ? [{ text: 'in (', about: 'one of several' }] : []),
    ...(type.kind === 'unit' ? [{ text: 'in unit', about: 'that unit or a unit below it' }] : []),
    { text: 'is empty', about: 'there is no value' },
    { text: 'is not empty', about: 'there is a value' },
  ];
}
