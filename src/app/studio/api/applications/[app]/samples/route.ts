import { samples } from '@/contract/studio/look';
import { kindOf } from '@/server/look/look';
import { inApplication } from '@/server/studio/answering';
import { samplesOf } from '@/server/studio/samples';

export const GET = inApplication(samples, async (workplace, { request, query }) => {
  const kind = await kindOf(workplace, query, new URL(request.url).pathname);
  const [entity, q] = [query.get('entity') ?? '', query.get('q') ?? ''];
  return { samples: await samplesOf(workplace.applicationId, kind, entity, q) };
});
