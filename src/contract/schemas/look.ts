import * as yup from 'yup';
import { type MadeViewer, madeViewerSchema } from '@/core/access';

export const keepViewerSchema = yup
  .object({
    name: yup.string().matches(/\S/, 'must not be empty').max(80).required(),
    viewer: madeViewerSchema,
  })
  .noUnknown() as unknown as yup.ISchema<{ readonly name: string; readonly viewer: MadeViewer }>;
