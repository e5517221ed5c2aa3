import * as yup from 'yup';
import { FORMAT, type Definition } from './definition';
import { findFaults } from './faults';
import { failed, ok, type Problem, type Result } from './problem';

/** Objects refuse keys that they do not know: a misspelt limit must not pass as no limit. */
function exactly<T extends yup.ObjectShape>(shape: T) {
  return yup
    .object(shape)
    .noUnknown(true, ({ unknown }) => `has no place for ${String(unknown)}`)
    .strict();
}

const id = yup
  .string()
  .matches(/^[A-Za-z0-9_-]{1,40}$/, 'must be 1 to 40 letters, digits, _ or -')
  .test('free', 'is a word that every object has; choose another', (text) => !text || !(text in {}))
  .required('is missing');
const name = yup
  .string()
  .trim()
  .min(1, 'must not be empty')
  .max(120, 'must be at most 120 characters')
  .required('is missing');
const listOf = (of: yup.ISchema<unknown>) => yup.array().of(of).required('is missing');
const value = yup
  .mixed()
  .test(
    'value',
    'must be a text, true or false',
    (v) => v === undefined || typeof v === 'string' || typeof v === 'boolean',
  );
const valueOrNull = yup
  .mixed()
  .nullable()
  .test(
    'value',
    'must be a text, true, false or null',
    (v) => v === null || typeof v === 'string' || typeof v === 'boolean',
  );

/** A map from ids to what `of` describes. */
const mapOf = (of: yup.ISchema<unknown>) =>
  yup.lazy((map: unknown) =>
    yup
      .object(
        typeof map === 'object' && map !== null
          ? Object.fromEntries(Object.keys(map).map((key) => [key, of]))
          : {},
      )
      .strict()
      .required('is missing'),
  );

/** Picks the schema by the key that tells the variants apart. */
function oneOf(key: string, variants: Record<string, yup.ObjectShape>) {
  return yup.lazy((input: unknown) => {
    const tag: unknown =
      typeof input === 'object' && input !== null ? (input as Record<string, unknown>)[key] : undefined;
    const names = Object.keys(variants);
    const shape = typeof tag === 'string' && names.includes(tag) ? variants[tag] : undefined;
    return exactly({
      [key]: yup
        .string()
        .oneOf(names, `must be one of ${names.join(', ')}`)
        .required('is missing'),
      ...shape,
    });
  });
}

const who = oneOf('kind', {
  everyone: {},
  'signed-out': {},
  'signed-in': {},
  role: { role: id, exactly: yup.boolean() },
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
});

const gate = exactly({ lines: listOf(lineSchema) });

const type = oneOf('kind', {
  text: { long: yup.boolean() },
  number: { decimals: yup.number().integer().min(0).max(10).required('is missing') },
  money: {},
  date: {},
  boolean: {},
  choice: { options: listOf(exactly({ id, name })) },
  record: { entity: id },
});

const effect = oneOf('do', {
  open: { screen: id },
  save: {},
  delete: {},
  action: { action: id },
  'sign-out': {},
});
const button = { kind: yup.string().oneOf(['button']).required(), id, name, effect };

const part = oneOf('kind', {
  field: { id, field: id },
  button: { id, name, effect },
  text: { id, text: yup.string().max(5000).required('is missing') },
  list: {
    id,
    name,
    entity: id,
    filter: exactly({ field: id, equals: value.required('is missing') }).default(undefined),
    columns: listOf(exactly({ id, field: id })),
    opens: id.notRequired(),
    buttons: listOf(exactly(button)),
  },
});

/** A screen of the document. */
export const screenSchema = exactly({
  id,
  name,
  address: yup
    .string()
    .matches(/^[a-z0-9-]+(\/[a-z0-9-]+)*$/, 'must be small letters, digits and -, in parts divided by /')
    .required('is missing'),
  binds: exactly({
    entity: id,
    record: yup.string().oneOf(['existing', 'new']).required('is missing'),
  }).default(undefined),
  sections: listOf(exactly({ id, name, parts: listOf(part) })),
});

const action = oneOf('kind', {
  create: { id, name },
  update: { id, name },
  delete: { id, name },
  named: { id, name, sets: mapOf(valueOrNull) },
});

const menuItem: yup.Lazy<unknown> = yup.lazy(() =>
  exactly({ id, name, screen: id.notRequired(), items: listOf(menuItem) }),
);

/** A role of the document. */
export const roleSchema = exactly({ id, name, includes: listOf(id), startScreen: id.notRequired() });

const definitionSchema = exactly({
  format: yup.number().oneOf([FORMAT], `must be ${FORMAT}`).required('is missing'),
  id,
  name,
  currency: yup
    .string()
    .matches(/^[A-Z]{3}$/, 'must be a currency such as GBP')
    .required('is missing'),
  language: yup
    .string()
    .matches(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, 'must be a language such as en-GB')
    .required('is missing'),
  newScreens: yup.string().oneOf(['nobody', 'signed-in', 'everyone']).required('is missing'),
  startScreen: id.notRequired(),
  roles: listOf(roleSchema),
  entities: listOf(
    exactly({
      id,
      name,
      plural: name,
      labelField: id,
      fields: listOf(
        exactly({
          id,
          name,
          type,
          required: yup.boolean(),
          initial: value.notRequired(),
          neverFollows: yup.boolean(),
        }),
      ),
      actions: listOf(action),
    }),
  ),
  areas: listOf(exactly({ id, name, screens: listOf(screenSchema) })),
  menu: exactly({ id, items: listOf(menuItem) }),
  gates: mapOf(gate),
});

/**
 * Reads a document. Every fault is told at once, with its place: first of shape (what is missing,
 * misspelt or of the wrong type), and where the shape is right, of sense (what points to nothing).
 */
export function readDefinition(input: unknown): Result<Definition> {
  try {
    definitionSchema.validateSync(input, { abortEarly: false });
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    return failed(...toProblems(error));
  }
  const definition = input as Definition;
  const faults = findFaults(definition);
  return faults.length > 0 ? failed(...faults) : ok(definition);
}

/** What Yup found, as problems: the path in the document is the place. */
export function toProblems(error: yup.ValidationError): Problem[] {
  const inner = error.inner.length > 0 ? error.inner : [error];
  return inner.map((one) => ({
    code: 'shape',
    place: one.path || 'the document',
    message: one.errors.join('; ').replace(/^this /, ''),
    mend: 'Correct it at this place.',
  }));
}
