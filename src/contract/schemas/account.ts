import * as yup from 'yup';

export const renameSchema = yup.object({ name: yup.string().max(300).default('') }).noUnknown();

export const changePasswordSchema = yup
  .object({ now: yup.string().max(1000).default(''), password: yup.string().max(1000).default('') })
  .noUnknown();
