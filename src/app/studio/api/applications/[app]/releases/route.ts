import * as yup from 'yup';
import { MOST_NUMBER, readBody } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { needReleaseRight } from '@/server/studio/builder';
import { answerByLine } from '@/server/work/run';

const body = yup
  .object({
    revision: yup.number().integer().min(0).max(MOST_NUMBER).required(),
    note: yup.string().trim().max(1000, 'A note has at most 1,000 characters.').default(''),
    despite: yup.string().trim().max(1000, 'A reason has at most 1,000 characters.').default(''),
  })
  .noUnknown();

/**
 * Releases the draft at the revision that was reviewed, with what its maker says of it; where it breaks what is expected, with why
 * that may be (`despite`). Answers line by line while live
 * records are converted.
 */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId, builder } = await needReleaseRight((await params).app);
  const { revision, ...said } = await readBody(request, body);
  return answerByLine('release', { applicationId, builderId: builder.id, revision, ...said }, builder.id);
});
