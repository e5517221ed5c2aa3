import { handle } from '@/server/http/handle';
import { liveRecords } from '@/server/live/api';

interface Context {
  params: Promise<{ app: string; entity: string }>;
}

export const GET = handle<Context>(async (request, { params }) => {
  const { app, entity } = await params;
  return (await liveRecords(app, request)).list(entity, new URL(request.url).searchParams);
});

export const POST = handle<Context>(async (request, { params }) => {
  const { app, entity } = await params;
  return (await liveRecords(app, request)).create(entity, request);
});
