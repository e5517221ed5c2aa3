import { handle } from '@/server/http/handle';
import { recordsOfLook } from '@/server/look/records';

interface Context {
  params: Promise<{ app: string; entity: string; id: string; action: string }>;
}

export const POST = handle<Context>(async (request, { params }) => {
  const { app, entity, id, action } = await params;
  return (await recordsOfLook(app, request)).act(entity, id, action, request);
});
