import type { Problem } from '@/core/model';

/** Exit codes, for scripts. */
export const EXIT = { fine: 0, differs: 1, wrongInput: 2, notMeant: 3, letsIn: 4 } as const;

/** What was given cannot be used. Told as a list, each with its place and a mend; nothing was done. */
export class WrongInput extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map(({ message }) => message).join(' '));
  }
}

/** One thing that is wrong with what was given. */
export const wrong = (place: string, message: string, mend: string): Problem => ({
  code: 'input',
  place,
  message,
  mend,
});
