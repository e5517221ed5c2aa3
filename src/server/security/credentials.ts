import * as yup from 'yup';

/** What a sign-in request carries. */
export const credentialsBody = yup
  .object({
    email: yup.string().max(300).default(''),
    password: yup.string().max(1000).default(''),
    back: yup.string().max(2000).optional(),
  })
  .noUnknown();
