import { handle } from '@/server/http/handle';
import { liveRecords } from '@/server/live/api';

interface Context {
  params: Promise<{ app: string; entity: string; id: string; action: string }>;
}

export const POST = handle<Context>(async (request, { params }) => {
  const { app, entity, id, action } = await params;
  return (await liveRecords(app, request)).act(entity, id, action, request);
});
