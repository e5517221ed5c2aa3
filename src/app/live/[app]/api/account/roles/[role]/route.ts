import { cookies } from 'next/headers';
import { handle, nothing } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { joinOrLeave } from '@/server/live/joining';
import { visit } from '@/server/live/visit';

type Params = { params: Promise<{ app: string; role: string }> };

const turn = (join: boolean) =>
  handle<Params>(async (_, { params }) => {
    const { app, role } = await params;
    const now = await visit(app, await cookies());
    if (!now) throw notThere();
    await joinOrLeave(now, now.access.compiled.definition, role, join);
    return nothing();
  });

/** Joins a role that people may join by themselves. */
export const PUT = turn(true);
/** Leaves it. */
export const DELETE = turn(false);
