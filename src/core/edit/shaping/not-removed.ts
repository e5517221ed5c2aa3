import type { Problem } from '../../model/problem';

/** Why something cannot be taken away, and what to do first. */
export const notRemoved = (place: string, message: string, mend: string): Problem => ({
  code: 'not-removed',
  place,
  message,
  mend,
});
