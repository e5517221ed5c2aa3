import { release } from '@/contract/studio/releasing';
import { inApplication } from '@/server/studio/answering';
import { answerByLine } from '@/server/work/run';

export const POST = inApplication(release, ({ applicationId, builder }, { body }) =>
  answerByLine('release', { applicationId, builderId: builder.id, ...body }, builder.id),
);
