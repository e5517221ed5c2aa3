import * as yup from 'yup';
import { lineSchema, roleSchema, screenSchema } from '../model/schema';
import type { Edit } from './edit';

const id = yup.string().min(1).max(40).required();
const at = yup.number().integer().min(0).required();
const lines = yup.array().of(lineSchema).required();

const SHAPES: Readonly<Record<Exclude<Edit['do'], 'together'>, yup.ObjectShape>> = {
  startLines: { gate: id, lines },
  follow: { gate: id, lines },
  addLine: { gate: id, line: lineSchema.required(), at },
  removeLine: { gate: id, line: lineSchema.required(), at },
  changeLine: { gate: id, from: lineSchema.required(), to: lineSchema.required() },
  changeRole: { from: roleSchema.required(), to: roleSchema.required() },
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
