import { cookies } from 'next/headers';
import { handle, json } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { LookingAfter } from '@/server/live/looking-after';
import { visit } from '@/server/live/visit';

/** Gives a person a new password, which is told once. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const now = await visit(app, await cookies());
  if (!now) throw notThere();
  return json({ password: await new LookingAfter(now).password(id) });
});
