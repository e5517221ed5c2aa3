import { handle, json } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { personById } from '@/server/people/read';
import { resetPassword } from '@/server/people/write';
import { needWorkplace } from '@/server/studio/builder';

/** Gives a person a new password, which is told once. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const { applicationId, builder } = await needWorkplace(app, 'change');
  if (!(await personById(applicationId, id))) throw notThere();
  return json({ password: await resetPassword(applicationId, { builderId: builder.id }, id) });
});
