import * as yup from 'yup';

const EMAIL = /^[^\s@,;<>"]+@[^\s@,;<>"]+\.[^\s@,;<>"]+$/;
const NAME = 'Enter a name of at most 120 characters.';
const ADDRESS = 'Enter a valid email address.';
const LEAST_PASSWORD = 10;

/** What is written of an account, and what is said where it is not right: by forms, and by the server again. */
export const ACCOUNT_FIELDS = {
  name: yup.string().trim().max(120, NAME).required(NAME),
  email: yup.string().trim().max(200, ADDRESS).required(ADDRESS).matches(EMAIL, ADDRESS),
  password: yup
    .string()
    .min(LEAST_PASSWORD, `Choose a password of at least ${LEAST_PASSWORD} characters.`)
    .required(`Choose a password of at least ${LEAST_PASSWORD} characters.`),
} as const;

/** What is wrong with what was written in one of the fields, in words; undefined where it is right. */
export function accountFault(field: keyof typeof ACCOUNT_FIELDS, text: string): string | undefined {
  try {
    ACCOUNT_FIELDS[field].validateSync(text);
    return undefined;
  } catch (error) {
    if (error instanceof yup.ValidationError) return error.message;
    throw error;
  }
}
