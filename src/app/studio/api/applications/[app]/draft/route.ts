import { MOST_NUMBER } from '@/contract/body';
import { changeDraft, draftSince } from '@/contract/studio/draft';
import { revisionsSince, undoStateIn } from '@/server/drafts/draft';
import { Refused } from '@/server/http/problem';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const GET = inApplication(draftSince, async ({ applicationId, builder }, { query }) => {
  const since = Number(query.get('since'));
  if (!Number.isInteger(since) || since < 0 || since > MOST_NUMBER)
    throw new Refused(422, 'query', 'since must be a revision number.');
  return {
    since: await revisionsSince(applicationId, since),
    standing: await undoStateIn(applicationId, builder.id),
  };
});

export const POST = inApplication(changeDraft, ({ applicationId, builder }, { request, body }) =>
  answerWhole(request, 'change', { applicationId, builderId: builder.id, body }, builder.id),
);
