import * as yup from 'yup';
import {
  closedSchema,
  definitionSchema,
  lineSchema,
  LIST_SCHEMAS,
  screenSchema,
  SETTINGS,
} from '../model/schema';
import { LISTS, type Edit } from './edit';

const id = yup.string().min(1).max(40).required();
const at = yup.number().integer().min(0).required();
const lines = yup.array().of(lineSchema).required();

const list = yup
  .string()
  .oneOf([...LISTS])
  .required();
/** One of the list that the edit itself names. */
const item = yup
  .mixed()
  .when('list', ([name]: unknown[]) =>
    typeof name === 'string' && Object.hasOwn(LIST_SCHEMAS, name)
      ? (LIST_SCHEMAS[name as keyof typeof LIST_SCHEMAS] as yup.Schema)
      : yup.mixed().required(),
  );
const closed = yup.lazy((input: unknown) =>
  input === undefined ? yup.mixed().notRequired() : closedSchema.resolve({ value: input }),
);
/** Those of the settings that the edit names; null where one is not set. */
const settings = yup.lazy((input: unknown) => {
  const shape: Record<string, yup.ISchema<unknown>> = {};
  for (const [key, schema] of Object.entries(SETTINGS)) {
    const value = (input as Record<string, unknown> | undefined)?.[key];
    if (value !== undefined) shape[key] = value === null ? yup.mixed().nullable() : schema;
  }
  return yup.object(shape).noUnknown().strict().required();
});

const SHAPES: Readonly<Record<Exclude<Edit['do'], 'together'>, yup.ObjectShape>> = {
  startLines: { gate: id, lines },
  follow: { gate: id, lines },
  addLine: { gate: id, line: lineSchema.required(), at },
  removeLine: { gate: id, line: lineSchema.required(), at },
  changeLine: { gate: id, from: lineSchema.required(), to: lineSchema.required() },
  addItem: { list, at, item },
  removeItem: { list, at, item },
  changeItem: { list, from: item, to: item },
  moveItem: { list, id, from: at, to: at },
  changeClosed: { element: id, from: closed, to: closed },
  changeSettings: { from: settings, to: settings },
  changeScreen: { from: screenSchema.required(), to: screenSchema.required() },
  replace: { from: definitionSchema.required(), to: definitionSchema.required() },
  addScreen: { area: id, at, screen: screenSchema.required(), lines },
  removeScreen: { area: id, at, screen: screenSchema.required(), lines },
};

/** An edit, as it comes from outside. Whether it applies is another question. */
export const editSchema = yup.lazy((edit: unknown): yup.Schema => {
  const kind: unknown = typeof edit === 'object' && edit !== null && 'do' in edit ? edit.do : undefined;
  const tag = {
    do: yup
      .string()
      .oneOf([...Object.keys(SHAPES), 'together'])
      .required(),
  };
  const shape =
    kind === 'together'
      ? { edits: yup.array().of(editSchema).max(500).required() }
      : typeof kind === 'string' && Object.hasOwn(SHAPES, kind)
        ? SHAPES[kind as keyof typeof SHAPES]
        : {};
  return yup
    .object({ ...tag, ...shape })
    .noUnknown()
    .strict()
    .required();
}) as unknown as yup.Schema<Edit>;
