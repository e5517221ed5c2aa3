import { cookies } from 'next/headers';
import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { peopleToStandFor, startStandIn, stopStandIn } from '@/server/live/standing';
import { visit } from '@/server/live/visit';
import type { Visit } from '@/server/live/who-visits';

type Params = { params: Promise<{ app: string }> };

const body = yup.object({ person: yup.string().max(60).required() }).noUnknown();

async function thisVisit(params: Params['params']): Promise<Visit> {
  const now = await visit((await params).app, await cookies());
  if (!now) throw notThere();
  return now;
}

/** `GET …/stand-in?q=`: as whom one may look. */
export const GET = handle<Params>(async (request, { params }) => {
  const q = new URL(request.url).searchParams.get('q') ?? '';
  return json({ people: await peopleToStandFor(await thisVisit(params), q) });
});

/** Begins to look as another person, or as the next. */
export const POST = handle<Params>(async (request, { params }) => {
  const { person } = await readBody(request, body);
  await startStandIn(await thisVisit(params), person);
  return nothing();
});

/** Back to oneself. */
export const DELETE = handle<Params>(async (_, { params }) => {
  await stopStandIn(await thisVisit(params));
  return nothing();
});
