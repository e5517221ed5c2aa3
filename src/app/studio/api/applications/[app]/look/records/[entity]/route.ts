import { handle } from '@/server/http/handle';
import { recordsOfLook } from '@/server/look/records';

interface Context {
  params: Promise<{ app: string; entity: string }>;
}

export const GET = handle<Context>(async (request, { params }) => {
  const { app, entity } = await params;
  return (await recordsOfLook(app, request)).list(entity, new URL(request.url).searchParams);
});

export const POST = handle<Context>(async (request, { params }) => {
  const { app, entity } = await params;
  return (await recordsOfLook(app, request)).create(entity, request);
});
