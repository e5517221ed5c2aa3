import * as yup from 'yup';

const closed = { element: yup.string().max(60).required(), record: yup.string().max(60).required() };

export const signUpSchema = yup
  .object({ name: yup.string().max(300).default(''), email: yup.string().max(300).default('') })
  .noUnknown();

export const choosePasswordSchema = yup
  .object({ token: yup.string().max(100).required(), password: yup.string().max(1000).default('') })
  .noUnknown();

export const sendNoteSchema = yup
  .object({
    address: yup.string().max(500).required(),
    element: yup.string().max(200),
    text: yup.string().max(2000).default(''),
  })
  .noUnknown();

export const startStandInSchema = yup.object({ person: yup.string().max(60).required() }).noUnknown();

export const unlockSchema = yup
  .object({
    ...closed,
    email: yup.string().max(300).required(),
    password: yup.string().max(1000).required(),
  })
  .noUnknown();

export const lockAgainSchema = yup.object(closed).noUnknown();
