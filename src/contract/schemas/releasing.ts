import * as yup from 'yup';
import { MOST_NUMBER } from '../body';

export const releaseSchema = yup
  .object({
    revision: yup.number().integer().min(0).max(MOST_NUMBER).required(),
    note: yup.string().trim().max(1000, 'The note is too long. Use at most 1,000 characters.').default(''),
    despite: yup
      .string()
      .trim()
      .max(1000, 'The reason is too long. Use at most 1,000 characters.')
      .default(''),
  })
  .noUnknown();
