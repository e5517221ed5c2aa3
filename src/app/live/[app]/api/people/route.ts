import { readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { LookingAfter } from '@/server/live/looking-after';
import { apiVisit } from '@/server/live/api';
import { personBody } from '@/server/people/input';
import { readPeopleQuery } from '@/server/people/list';

interface Context {
  params: Promise<{ app: string }>;
}

async function lookingAfter(params: Context['params'], request: Request): Promise<LookingAfter> {
  const now = await apiVisit((await params).app, request);
  return LookingAfter.of(now);
}

/** The people whom this one looks after, with what may be handed out. */
export const GET = handle<Context>(async (request, { params }) => {
  const after = await lookingAfter(params, request);
  const found = await after.list(readPeopleQuery(new URL(request.url).searchParams));
  return json({ ...found, offers: after.offers() });
});

export const POST = handle<Context>(async (request, { params }) => {
  const after = await lookingAfter(params, request);
  return json(await after.create(await readBody(request, personBody)), { status: 201 });
});
