import * as yup from 'yup';
import { exactly, listOf, typeSchema, type ValueType } from '@/core/model';
import { MOST_NUMBER } from '../body';
import type { Written } from '../records';
import { writtenSchema } from './records';

/** Records as they were seen. */
export type ChosenRows = readonly { readonly id: string; readonly version: number }[];

const chosen = listOf(
  exactly({ id: yup.string().max(60).required(), version: yup.number().integer().required() }),
  500,
);

export const turnedSchema = yup
  .object({ field: yup.string().max(60).required(), type: typeSchema })
  .noUnknown() as unknown as yup.ISchema<{ readonly field: string; readonly type: ValueType }>;

export const changeRowsSchema = yup
  .object({ records: chosen, values: writtenSchema as yup.Schema<Written> })
  .noUnknown() as unknown as yup.ISchema<{
  readonly records: ChosenRows;
  readonly values: Written;
}>;

export const deleteRowsSchema = yup.object({ records: chosen }).noUnknown() as unknown as yup.ISchema<{
  readonly records: ChosenRows;
}>;

export const makeUpRecordsSchema = yup
  .object({
    seed: yup.number().integer().min(0).max(MOST_NUMBER).required(),
    count: yup.number().integer().min(1, 'Enter a number of at least 1.').max(MOST_NUMBER).required(),
  })
  .noUnknown();
