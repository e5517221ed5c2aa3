import { handle, nothing } from '@/server/http/handle';
import { liftWaitsOf } from '@/server/people/write';
import { needPeopleRight } from '@/server/studio/builder';

/** Lifts what makes a person wait to sign in, after wrong tries. */
export const DELETE = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const { applicationId, builder } = await needPeopleRight(app);
  await liftWaitsOf(applicationId, { builderId: builder.id }, id);
  return nothing();
});
