import type { Review } from '@/core/edit';
import { json } from '../body';
import { ofApplication } from '../route';
import type { ListedExpectation } from './proving';

const schemas = () => import('../schemas/releasing');

/** What stands between the draft and a release. */
export interface Breaking {
  /** May a release break an expectation, with a reason? */
  readonly mayBreak: boolean;
  readonly broken: readonly ListedExpectation[];
}

/** What a release of the draft would change, and for whom. */
export const review = ofApplication('POST', '/review', 'read').answersByLine<Review>();

/** Which expectations a release of the draft would break, and whether it may. */
export const breaking = ofApplication('GET', '/review/breaking', 'read').answers<Breaking>();

/**
 * Releases the draft at the revision that was reviewed, with what its maker says of it; where it breaks what is expected,
 * with why that may be (`despite`). It takes as long as live records are converted.
 */
export const release = ofApplication('POST', '/releases', 'release', {
  body: json(schemas, 'releaseSchema'),
}).answersByLine<{ readonly number: number }>();
