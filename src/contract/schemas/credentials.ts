import * as yup from 'yup';

/** What signs somebody in, and where they wanted to go. */
export const credentialsSchema = yup
  .object({
    email: yup.string().max(300).default(''),
    password: yup.string().max(1000).default(''),
    back: yup.string().max(2000).optional(),
  })
  .noUnknown();
