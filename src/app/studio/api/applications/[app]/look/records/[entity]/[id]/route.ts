import { handle } from '@/server/http/handle';
import { recordsOfLook } from '@/server/look/records';

interface Context {
  params: Promise<{ app: string; entity: string; id: string }>;
}

export const GET = handle<Context>(async (request, { params }) => {
  const { app, entity, id } = await params;
  return (await recordsOfLook(app, request)).read(entity, id);
});

export const PATCH = handle<Context>(async (request, { params }) => {
  const { app, entity, id } = await params;
  return (await recordsOfLook(app, request)).update(entity, id, request);
});

export const DELETE = handle<Context>(async (request, { params }) => {
  const { app, entity, id } = await params;
  return (await recordsOfLook(app, request)).delete(entity, id, request);
});
