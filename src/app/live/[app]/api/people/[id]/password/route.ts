import { handle, json } from '@/server/http/handle';
import { LookingAfter } from '@/server/live/looking-after';
import { apiVisit } from '@/server/live/api';

/** Gives a person a new password, which is told once. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (request, { params }) => {
  const { app, id } = await params;
  const now = await apiVisit(app, request);
  return json({ password: await new LookingAfter(now).password(id) });
});
