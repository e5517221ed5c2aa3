import * as yup from 'yup';
import { closedSchema, lineSchema, LIST_SCHEMAS, SETTINGS } from '../../model/schema';
import { exactly, listOf, mapOf, optional, tagged } from '../../model/shape';
import { SLOTS } from '../../model/slots';
import { NAMED_LISTS, type Edit } from './edit';

const id = yup.string().min(1).max(40).required();
const at = yup.number().integer().min(0).required();
const lines = listOf(lineSchema, 2000);

const closed = optional(closedSchema);

/** Those settings that an application may be without. */
const MAY_LACK: readonly string[] = ['startScreen', 'unlock', 'standIn'];

/** Those of the settings that the edit names; null where one is not set. */
const settings = yup.lazy((input: unknown) => {
  const shape: Record<string, yup.ISchema<unknown>> = {};
  for (const [key, schema] of Object.entries(SETTINGS)) {
    const value = (input as Record<string, unknown> | undefined)?.[key];
    const lacking = value === null && MAY_LACK.includes(key);
    if (value !== undefined) shape[key] = lacking ? yup.mixed().nullable() : schema;
  }
  return exactly(shape);
});

const slot = {
  in: yup.string().min(1).max(40).nullable().defined(),
  list: yup.string().oneOf(SLOTS).required(),
};
/** What stands in a list is looked at once it is known in which: when the edit is made. */
const whole = {
  into: exactly(slot),
  at,
  node: yup.object().strict().required(),
  gates: mapOf(exactly({ lines })),
  closed: mapOf(closedSchema),
};
const keys = mapOf(yup.mixed().nullable().defined());

type Fields = Readonly<Record<string, yup.ISchema<unknown>>>;

/** What an edit has beside its name; for those of a list, by what its items are. */
const SHAPES: Readonly<Record<string, Fields>> = {
  startLines: { gate: id, lines },
  follow: { gate: id, lines },
  addLine: { gate: id, line: lineSchema, at },
  removeLine: { gate: id, line: lineSchema, at },
  changeLine: { gate: id, from: lineSchema, to: lineSchema },
  changeClosed: { element: id, from: closed, to: closed },
  changeSettings: { from: settings, to: settings },
  addElement: whole,
  removeElement: whole,
  moveElement: { id, from: exactly({ ...slot, at }), to: exactly({ ...slot, at }) },
  changeElement: { id, from: keys, to: keys },
};
const LIST_SHAPES: Readonly<Record<string, (item: yup.ISchema<unknown>) => Fields>> = {
  addItem: (item) => ({ at, item }),
  removeItem: (item) => ({ at, item }),
  changeItem: (item) => ({ from: item, to: item }),
  moveItem: () => ({ id, from: at, to: at }),
};

const oneOfThese = (names: readonly string[]) =>
  yup
    .string()
    .oneOf([...names], `must be one of ${names.join(', ')}`)
    .required('is missing');

const tag = oneOfThese([...Object.keys(SHAPES), ...Object.keys(LIST_SHAPES), 'together']);
const listName = oneOfThese(NAMED_LISTS);

/** By the edit's name, and for those of a list by the list's. */
const schemas = new Map<string, yup.ISchema<unknown>>([
  ...Object.entries(SHAPES).map(([name, shape]) => [name, exactly({ do: tag, ...shape })] as const),
  ...Object.entries(LIST_SHAPES).flatMap(([name, shapeOf]) =>
    NAMED_LISTS.map(
      (list) =>
        [`${name} ${list}`, exactly({ do: tag, list: listName, ...shapeOf(LIST_SCHEMAS[list]) })] as const,
    ),
  ),
]);
const unknown = tagged({ do: tag });
const unknownList = tagged({ do: tag, list: listName });

/**
 * An edit, as it comes from outside. Whether it applies is another question. A whole document takes the place of
 * another only by the command line.
 */
export const editSchema = yup.lazy((edit) => shapeOfEdit(edit) as yup.Schema) as yup.Lazy<Edit>;
const together: yup.ISchema<unknown> = exactly({ do: tag, edits: listOf(editSchema, 500) });

function shapeOfEdit(edit: unknown): yup.ISchema<unknown> {
  if (typeof edit !== 'object' || edit === null) return unknown;
  const { do: name, list } = edit as Record<string, unknown>;
  if (name === 'together') return together;
  if (typeof name === 'string' && Object.hasOwn(LIST_SHAPES, name))
    return schemas.get(`${name} ${String(list)}`) ?? unknownList;
  return (typeof name === 'string' ? schemas.get(name) : undefined) ?? unknown;
}
