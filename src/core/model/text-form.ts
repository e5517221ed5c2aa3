import { ACCOUNT_FIELDS } from './account';
import type { TextForm } from './definition';

export const TEXT_FORMS: readonly TextForm[] = ['email', 'web', 'telephone', 'digits'];

interface Form {
  /** How a builder chooses it. */
  readonly name: string;
  readonly fits: (text: string) => boolean;
  /** What is said to who wrote something else. */
  readonly says: string;
}

/** The forms that a text can be asked to have. */
export const FORMS_OF_TEXT: Readonly<Record<TextForm, Form>> = {
  email: {
    name: 'an email address',
    fits: (text) => ACCOUNT_FIELDS.email.isValidSync(text),
    says: 'Enter an email address such as ada@example.com.',
  },
  web: {
    name: 'a web address',
    fits: (text) => /^https?:\/\/[^\s/]/i.test(text) && URL.canParse(text),
    says: 'Enter a web address such as https://example.com.',
  },
  telephone: {
    name: 'a telephone number',
    // With a + for the country's code (ITU-T E.164: at most 15 digits), and what people put between digits.
    fits: (text) => /^\+?[\d ()./-]+$/.test(text) && /^\d{3,15}$/.test(text.replace(/\D/g, '')),
    says: 'Enter a telephone number such as +44 20 7946 0100.',
  },
  digits: {
    name: 'digits only',
    fits: (text) => /^\d+$/.test(text),
    says: 'Enter digits only.',
  },
};
