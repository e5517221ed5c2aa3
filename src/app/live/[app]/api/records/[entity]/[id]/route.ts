import { handle } from '@/server/http/handle';
import { liveRecords } from '@/server/live/api';

interface Context {
  params: Promise<{ app: string; entity: string; id: string }>;
}

export const GET = handle<Context>(async (request, { params }) => {
  const { app, entity, id } = await params;
  return (await liveRecords(app, request)).read(entity, id);
});

export const PATCH = handle<Context>(async (request, { params }) => {
  const { app, entity, id } = await params;
  return (await liveRecords(app, request)).update(entity, id, request);
});

export const DELETE = handle<Context>(async (request, { params }) => {
  const { app, entity, id } = await params;
  return (await liveRecords(app, request)).delete(entity, id, request);
});
