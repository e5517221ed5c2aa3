import { handle } from '@/server/http/handle';
import { recordsOfCanvas } from '@/server/studio/canvas-api';

interface Context {
  params: Promise<{ app: string; entity: string }>;
}

export const GET = handle<Context>(async (request, { params }) => {
  const { app, entity } = await params;
  return (await recordsOfCanvas(app, request)).list(entity, new URL(request.url).searchParams);
});

export const POST = handle<Context>(async (request, { params }) => {
  const { app, entity } = await params;
  return (await recordsOfCanvas(app, request)).create(entity, request);
});
