import * as yup from 'yup';
import { isTimeZone } from '../condition/clock';
import { CLOCK_READINGS, HELD_WHERE, type Condition, type Operand } from '../condition/condition';
import { COMPARISONS } from '../condition/operators';
import { FORMAT, type Definition, type MenuItem, type Unit } from './definition';
import { findFaults } from './faults';
import { failed, ok, type Result } from './problem';
import {
  byKey,
  checkShape,
  exactly,
  itself,
  listOf,
  mapOf,
  oneOf,
  optional,
  type Shape,
  type ValueOf,
} from './shape';
import { isOutside } from './outside';
import { TEXT_FORMS } from './text-form';
import type { Value, ValueType } from './value-type';

const id = yup
  .string()
  .matches(/^[A-Za-z0-9_-]{1,40}$/, 'must be 1 to 40 letters, digits, _ or -')
  .test('free', 'is a reserved word; choose another id', (text) => !text || !(text in {}))
  .required('is missing');
const name = yup
  .string()
  .trim()
  .min(1, 'must not be empty')
  .max(120, 'must be at most 120 characters')
  .required('is missing');
const words = yup.string().trim().max(500, 'must be at most 500 characters');
const minutes = yup
  .number()
  .integer('must be a whole number')
  .min(1, 'must be at least 1')
  .max(525_600, 'must be at most one year')
  .required('is missing');
const value = yup
  .mixed<Value>()
  .meta({ json: ['string', 'boolean'] })
  .test(
    'value',
    'must be text, true or false',
    (v) => v === undefined || typeof v === 'string' || typeof v === 'boolean',
  );
const valueOrNull = yup
  .mixed<Value>()
  .meta({ json: ['string', 'boolean', 'null'] })
  .nullable()
  .test(
    'value',
    'must be text, true, false or null',
    (v) => v === undefined || v === null || typeof v === 'string' || typeof v === 'boolean',
  )
  .defined('is missing');

const operand = byKey<Operand>('an operand', () => ({
  user: { user: id },
  record: { record: id, through: id.optional() },
  session: { session: id },
  clock: {
    clock: yup
      .string()
      .oneOf(CLOCK_READINGS, `must be one of ${CLOCK_READINGS.join(', ')}`)
      .required(),
    plus: yup.number().integer().min(-99_999).max(99_999),
  },
  value: { value: value.required('is missing') },
}));

const held = yup.string().oneOf(HELD_WHERE, `must be one of ${HELD_WHERE.join(', ')}`);

/** A condition of the document. What it names, and its types, are looked at afterwards. */
export const conditionSchema: Shape<Condition> = byKey('a condition', () => ({
  all: { all: listOf(conditionSchema) },
  any: { any: listOf(conditionSchema) },
  not: { not: conditionSchema },
  compare: {
    compare: yup
      .string()
      .oneOf(COMPARISONS, `must be one of ${COMPARISONS.join(', ')}`)
      .required(),
    left: operand,
    right: operand,
    anyCase: yup.boolean(),
  },
  between: { between: operand, from: operand, to: operand },
  empty: { empty: operand },
  oneOf: { oneOf: operand, values: listOf(value.required('is missing')) },
  inUnit: { inUnit: operand, unit: operand },
  hasRole: { hasRole: id, exactly: yup.boolean(), held },
  hasPrivilege: { hasPrivilege: id, held },
  inGroup: { inGroup: id },
  meets: { meets: id },
  call: { call: id, with: listOf(operand) },
}));

const optionalCondition = optional(conditionSchema);

const who = oneOf('kind', {
  everyone: {},
  'signed-out': {},
  'signed-in': {},
  role: { role: id, exactly: yup.boolean() },
  privilege: { privilege: id },
  group: { group: id },
  unit: { unit: id },
  person: { person: id },
});

/** One line of a gate. */
export const lineSchema = exactly({
  id,
  who,
  what: yup
    .string()
    .oneOf(['see', 'edit', 'at-most-see', 'block'], 'must be see, edit, at-most-see or block')
    .required('is missing'),
  when: optionalCondition,
});

const gate = exactly({ lines: listOf(lineSchema) });

/** What a field can hold. */
export const typeSchema = oneOf('kind', {
  text: { long: yup.boolean() },
  number: { decimals: yup.number().integer().min(0).max(10).required('is missing') },
  money: {},
  date: {},
  boolean: {},
  choice: { options: listOf(exactly({ id, name, merged: optional(listOf(id)) })) },
  record: { entity: id },
  unit: {},
} satisfies Record<ValueType['kind'], object>);

const effect = oneOf('do', {
  open: { screen: id },
  save: {},
  delete: {},
  action: { action: id },
  export: { list: id },
  bulk: { list: id },
  'set-session': { value: id, to: valueOrNull },
  visit: {
    url: yup
      .string()
      .max(2000, 'must be at most 2000 characters')
      .test('https', 'must be a web address that starts with https://', (text) => !text || isOutside(text))
      .required('is missing'),
  },
  'sign-out': {},
});
const button = exactly({ kind: yup.string().oneOf(['button']).required(), id, name, effect });
const column = exactly({ id, field: id });

const part = oneOf('kind', {
  field: { id, field: id, wide: yup.boolean(), help: words },
  button: { id, name, effect },
  text: { id, text: yup.string().max(5000).required('is missing') },
  list: {
    id,
    name,
    entity: id,
    filter: optionalCondition,
    of: id.optional(),
    columns: listOf(column),
    opens: id.optional(),
    buttons: listOf(button),
  },
  chart: {
    id,
    name,
    list: id,
    by: id,
    shows: yup.string().oneOf(['count', 'sum', 'average']).required('is missing'),
    of: id.optional(),
    as: yup.string().oneOf(['bars', 'line']).required('is missing'),
  },
  people: { id, name },
});

const section = exactly({ id, name, parts: listOf(part) });
const sections = listOf(section);
const face = exactly({ id, name, sections });

/** A screen of the document. */
const screenSchema = exactly({
  id,
  name,
  address: yup
    .string()
    .matches(
      /^[a-z0-9-]+(\/[a-z0-9-]+)*$/,
      'must contain only lower-case letters, digits and hyphens, with / between parts',
    )
    .required('is missing'),
  binds: optional(
    exactly({ entity: id, record: yup.string().oneOf(['existing', 'new']).required('is missing') }),
  ),
  sets: optional(listOf(exactly({ value: id, to: valueOrNull }))),
  sections,
  faces: optional(listOf(face)),
});

const action = oneOf('kind', {
  create: { id, name },
  update: { id, name },
  delete: { id, name },
  export: { id, name },
  bulk: { id, name },
  named: { id, name, sets: mapOf(valueOrNull), confirm: words },
});

const menuItem: Shape<MenuItem> = itself(() =>
  exactly({ id, name, screen: id.optional(), items: listOf(menuItem) }),
);

const frame = exactly({ id, name, items: listOf(menuItem) });

const area = exactly({ id, name, frame: optional(frame), screens: listOf(screenSchema) });

const roleSchema = exactly({
  id,
  name,
  description: words,
  includes: listOf(id),
  privileges: listOf(id),
  givenToNew: yup.boolean(),
  joinable: yup.boolean(),
  standInFull: yup.boolean(),
  setsCompared: yup.boolean(),
  startScreen: id.optional(),
  handsOut: optional(listOf(exactly({ role: id, notHeld: yup.boolean() }))),
});

const unit: Shape<Unit> = itself(() => exactly({ id, name, units: listOf(unit) }));

/** What those see who do not get an element. */
export const closedSchema = oneOf('show', {
  locked: {},
  explained: { text: words.required('is missing') },
  refused: { text: words.required('is missing') },
  sent: { screen: id },
  secret: {},
});

const entityField = exactly({
  id,
  name,
  type: typeSchema,
  required: yup.boolean(),
  initial: value,
  neverFollows: yup.boolean(),
  check: optional(
    exactly({
      most: yup
        .number()
        .integer('must be a whole number')
        .min(1, 'must be at least 1')
        .max(10_000, 'must be at most 10000'),
      form: yup.string().oneOf(TEXT_FORMS, `must be one of ${TEXT_FORMS.join(', ')}`),
    }),
  ),
});

const entity = exactly({
  id,
  name,
  plural: name,
  labelField: id,
  unitField: id.optional(),
  fields: listOf(entityField),
  actions: listOf(action),
});

/** The parts of the document that are lists of things with names, as edits change them one by one. */
export const LIST_SCHEMAS = {
  roles: roleSchema,
  privileges: exactly({ id, name, privileges: listOf(exactly({ id, name })) }),
  units: unit,
  attributes: exactly({ id, name, type: typeSchema }),
  groups: exactly({ id, name, condition: conditionSchema }),
  conditions: exactly({ id, name, entity: id.optional(), condition: conditionSchema }),
  sessionValues: exactly({ id, name, type: typeSchema, minutes }),
} as const;

/** What is set for the whole application, each by its name. */
export const SETTINGS = {
  name,
  currency: yup
    .string()
    .matches(/^[A-Z]{3}$/, 'must be a currency code such as GBP')
    .required('is missing'),
  language: yup
    .string()
    .matches(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, 'must be a language code such as en-GB')
    .required('is missing'),
  timeZone: yup
    .string()
    .test('zone', 'must be a time zone such as Europe/London', (text) => !text || isTimeZone(text))
    .required('is missing'),
  newScreens: yup.string().oneOf(['nobody', 'signed-in', 'everyone']).required('is missing'),
  startScreen: id.optional(),
  signUp: yup.boolean().required('is missing'),
  unlock: optional(exactly({ privilege: id, minutes })),
  standIn: optional(exactly({ privilege: id, minutes, changes: yup.boolean().required('is missing') })),
};

/** What can stand in each of the lists whose members are elements. */
export const SLOT_SCHEMAS = {
  areas: area,
  entities: entity,
  frame,
  screens: screenSchema,
  sections: section,
  faces: face,
  parts: part,
  columns: column,
  buttons: button,
  items: menuItem,
  fields: entityField,
  actions: action,
} as const;

/** A whole document. */
export const definitionSchema = exactly({
  format: yup.mixed<typeof FORMAT>().oneOf([FORMAT], `must be ${FORMAT}`).required('is missing'),
  id,
  ...SETTINGS,
  roles: listOf(LIST_SCHEMAS.roles),
  privileges: listOf(LIST_SCHEMAS.privileges),
  units: listOf(unit),
  attributes: listOf(LIST_SCHEMAS.attributes),
  groups: listOf(LIST_SCHEMAS.groups),
  conditions: listOf(LIST_SCHEMAS.conditions),
  sessionValues: listOf(LIST_SCHEMAS.sessionValues),
  entities: listOf(entity),
  areas: listOf(area),
  menu: exactly({ id, items: listOf(menuItem) }),
  gates: mapOf(gate),
  closed: mapOf(closedSchema),
});

/** The parts that the JSON Schema calls by a name. */
export const NAMED_SHAPES = {
  id,
  name,
  type: typeSchema,
  effect,
  part,
  section,
  line: lineSchema,
  unit,
  menuItem,
  condition: conditionSchema,
  operand,
} as const;

type Same<A, B> = A extends B ? (B extends A ? true : never) : never;
/** The types of `definition.ts`, where each key is explained, are those of this schema: what differs does not compile. */
true satisfies Same<Definition, ValueOf<typeof definitionSchema>>;

/** How much a document may hold: some twenty times an application of 300 screens. */
export const MOST_VALUES = 2_000_000;

/**
 * Reads a document. Every fault is told at once, with its place: first of shape (what is missing,
 * misspelt or of the wrong type), and where the shape is right, of sense (what points to nothing).
 * It never throws, and accepts only what can be decided.
 *
 * @example
 * readDefinition(LARKFIELD).ok // → true
 * const read = readDefinition({ ...LARKFIELD, roles: 'all' });
 * !read.ok && read.problems[0].place // → 'roles'
 */
export function readDefinition(input: unknown): Result<Definition> {
  const read = checkShape(definitionSchema, input, { values: MOST_VALUES });
  if (!read.ok) return read;
  const definition = input as Definition;
  const faults = findFaults(definition);
  return faults.length > 0 ? failed(...faults) : ok(definition);
}
