import { handle, nothing } from '@/server/http/handle';
import { joinOrLeave } from '@/server/live/joining';
import { apiVisit } from '@/server/live/api';

type Params = { params: Promise<{ app: string; role: string }> };

const turn = (join: boolean) =>
  handle<Params>(async (request, { params }) => {
    const { app, role } = await params;
    const now = await apiVisit(app, request);
    await joinOrLeave(now, now.access.compiled.definition, role, join);
    return nothing();
  });

/** Joins a role that people may join by themselves. */
export const PUT = turn(true);
/** Leaves it. */
export const DELETE = turn(false);
