import { cookies } from 'next/headers';
import { handle, json, readBody } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { LookingAfter } from '@/server/live/looking-after';
import { visit } from '@/server/live/visit';
import { personBody } from '@/server/people/input';
import { readPeopleQuery } from '@/server/people/list';

interface Context {
  params: Promise<{ app: string }>;
}

async function lookingAfter(params: Context['params']): Promise<LookingAfter> {
  const now = await visit((await params).app, await cookies());
  if (!now) throw notThere();
  return new LookingAfter(now);
}

/** The people whom this one looks after, with what may be handed out. */
export const GET = handle<Context>(async (request, { params }) => {
  const after = await lookingAfter(params);
  const found = await after.list(readPeopleQuery(new URL(request.url).searchParams));
  return json({ ...found, offers: after.offers() });
});

export const POST = handle<Context>(async (request, { params }) => {
  const after = await lookingAfter(params);
  return json(await after.create(await readBody(request, personBody)), { status: 201 });
});
