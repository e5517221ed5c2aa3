import * as yup from 'yup';
import { exactly, listOf } from '@/core/model';
import { type BulkChange, MOST_CHANGED, type Written } from '../records';

export const writtenSchema: yup.ISchema<Written> = yup
  .mixed<Written>(
    (value): value is Written => typeof value === 'object' && value !== null && !Array.isArray(value),
  )
  .required();

/** What a form writes. */
export const valuesSchema = yup.object({ values: writtenSchema as yup.Schema<Written> }).noUnknown();

/** Changes many records of a list: which, each as it was seen, and to what. */
export const bulkSchema = yup
  .object({
    record: yup.string().max(60),
    records: listOf(
      exactly({ id: yup.string().max(60).required(), version: yup.string().max(40).required() }),
      MOST_CHANGED,
    ),
    values: yup.object().required(),
  })
  .noUnknown() as unknown as yup.ISchema<BulkChange>;

export const beforeSavingSchema = yup
  .object({
    address: yup.string().max(500).defined(),
    values: writtenSchema as yup.Schema<Written>,
    face: yup.string().max(60),
  })
  .noUnknown();

export const pressSchema = yup
  .object({ button: yup.string().max(60).required(), record: yup.string().max(60) })
  .noUnknown();
