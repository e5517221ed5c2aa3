import { handle } from '@/server/http/handle';
import { recordsOfCanvas } from '@/server/studio/canvas-api';

interface Context {
  params: Promise<{ app: string; entity: string; id: string }>;
}

export const PATCH = handle<Context>(async (request, { params }) => {
  const { app, entity, id } = await params;
  return (await recordsOfCanvas(app, request)).update(entity, id, request);
});

export const DELETE = handle<Context>(async (request, { params }) => {
  const { app, entity, id } = await params;
  return (await recordsOfCanvas(app, request)).delete(entity, id, request);
});
