import type { Problem } from '../../model/problem';

/** What an edit expected to find is not there any more. */
export const changedMeanwhile = (place: string, message: string): Problem => ({
  code: 'changed-meanwhile',
  place,
  message,
  mend: 'Check the current version and make your change again if you still need it.',
});
