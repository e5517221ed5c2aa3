import {
  addExpectations,
  expectations,
  expectWhatIs,
  removeExpectations as removeContract,
} from '@/contract/studio/proving';
import { listExpectations, removeExpectations } from '@/server/proving/expectations';
import { inApplication } from '@/server/studio/answering';
import { answerWhole, inWorker } from '@/server/work/run';

export const GET = inApplication(expectations, async ({ applicationId }) => ({
  expectations: await listExpectations(applicationId),
}));

export const POST = inApplication(addExpectations, ({ applicationId, builder }, { request, body }) => {
  const input = { applicationId, builderId: builder.id, body };
  return answerWhole(request, 'add-expectations', input, builder.id, 201);
});

export const PATCH = inApplication(expectWhatIs, async ({ applicationId, builder }, { request, body }) => {
  const input = { applicationId, builderId: builder.id, body };
  await inWorker('expect-what-is', input, { owner: builder.id, signal: request.signal });
});

export const DELETE = inApplication(removeContract, ({ applicationId }, { body }) =>
  removeExpectations(applicationId, body.ids),
);
