import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { LookingAfter } from '@/server/live/looking-after';
import { apiVisit } from '@/server/live/api';
import { personChangeBody } from '@/server/people/input';

export const PATCH = handle<{ params: Promise<{ app: string; id: string }> }>(async (request, { params }) => {
  const { app, id } = await params;
  const now = await apiVisit(app, request);
  await LookingAfter.of(now).update(id, await readBody(request, personChangeBody));
  return nothing();
});
