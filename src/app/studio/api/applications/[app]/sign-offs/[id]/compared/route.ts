import { compareSignOff } from '@/contract/studio/proving';
import { inApplication } from '@/server/studio/answering';
import { answerByLine } from '@/server/work/run';

export const POST = inApplication(compareSignOff, ({ applicationId, builder }, { params: { id }, query }) =>
  answerByLine('compare-sign-off', { applicationId, id, other: query.get('with') ?? undefined }, builder.id),
);
