import { handle, nothing } from '@/server/http/handle';
import { sendNewLink } from '@/server/people/write';
import { needPeopleRight } from '@/server/studio/builder';

/** Sends a person a link to choose a password. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const { applicationId, builder } = await needPeopleRight(app);
  await sendNewLink(applicationId, { builderId: builder.id }, id);
  return nothing();
});
