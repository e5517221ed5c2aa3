import { review } from '@/contract/studio/releasing';
import { stateOf } from '@/server/releasing/state';
import { inApplication } from '@/server/studio/answering';
import { answerByLine } from '@/server/work/run';

export const POST = inApplication(review, async ({ applicationId, builder }) =>
  answerByLine('review', { applicationId }, builder.id, await stateOf(applicationId)),
);
