import { dataAt } from '@/server/data/at';
import { takeOverSamples } from '@/server/data/take-over';
import { handle, json } from '@/server/http/handle';

type Params = { params: Promise<{ app: string; entity: string }> };

/** Takes all sample records over as live ones, where nothing is live yet. */
export const POST = handle<Params>(async (request, { params }) => {
  const { app, entity } = await params;
  return json({ count: await takeOverSamples(await dataAt(request, app, entity, 'change')) });
});
