import { cookies } from 'next/headers';
import { handle, nothing, readBody } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { LookingAfter } from '@/server/live/looking-after';
import { visit } from '@/server/live/visit';
import { personBody } from '@/server/people/input';

export const PATCH = handle<{ params: Promise<{ app: string; id: string }> }>(async (request, { params }) => {
  const { app, id } = await params;
  const now = await visit(app, await cookies());
  if (!now) throw notThere();
  await new LookingAfter(now).update(id, await readBody(request, personBody));
  return nothing();
});
