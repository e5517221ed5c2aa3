import { lookWhy } from '@/contract/studio/look';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const GET = inApplication(lookWhy, (workplace, { request, query }) => {
  const look = { workplace, query: query.toString(), path: new URL(request.url).pathname };
  const [element, address] = [query.get('element') ?? '', query.get('address') ?? ''];
  const row = query.get('row') ?? undefined;
  return answerWhole(request, 'why', { ...look, element, address, row }, workplace.builder.id);
});
