import { handle, nothing } from '@/server/http/handle';
import { LookingAfter } from '@/server/live/looking-after';
import { apiVisit } from '@/server/live/api';

/** Sends a person a link to choose a password. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (request, { params }) => {
  const { app, id } = await params;
  await LookingAfter.of(await apiVisit(app, request)).sendLink(id);
  return nothing();
});
