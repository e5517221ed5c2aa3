import { handle, nothing } from '@/server/http/handle';
import { LookingAfter } from '@/server/live/looking-after';
import { apiVisit } from '@/server/live/api';

/** Lifts what makes a person wait to sign in, after wrong tries. */
export const DELETE = handle<{ params: Promise<{ app: string; id: string }> }>(
  async (request, { params }) => {
    const { app, id } = await params;
    await LookingAfter.of(await apiVisit(app, request)).liftWaits(id);
    return nothing();
  },
);
