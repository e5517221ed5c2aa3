import * as yup from 'yup';
import type { Condition } from '@/core/condition';
import { editSchema } from '@/core/edit';
import { conditionSchema, optional } from '@/core/model';
import { MOST_NUMBER } from '../body';

export const changeSchema = yup
  .object({
    base: yup.number().integer().min(0).max(MOST_NUMBER).required(),
    ask: yup.string().oneOf(['edit', 'undo', 'redo']).required(),
    edit: optional(editSchema),
    request: yup.string().uuid(),
    confirmed: yup.string().max(40),
  })
  .noUnknown();

export const editToTrySchema = yup.object({ edit: editSchema }).noUnknown();

export const conditionToTrySchema = yup
  .object({ condition: conditionSchema as unknown as yup.Schema<Condition>, entity: yup.string().max(60) })
  .noUnknown();

export const moveApplicationSchema = yup.object({ slug: yup.string().max(200).required() }).noUnknown();

export const deleteApplicationSchema = yup.object({ name: yup.string().max(500).required() }).noUnknown();
