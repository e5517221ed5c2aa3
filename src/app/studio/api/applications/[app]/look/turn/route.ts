import { lookTurns } from '@/contract/studio/look';
import { Refused } from '@/server/http/problem';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const GET = inApplication(lookTurns, async (workplace, { request, query }) => {
  const level = Number(query.get('level'));
  if (level !== 0 && level !== 1 && level !== 2)
    throw new Refused(422, 'query', 'level must be 0 (none), 1 (see) or 2 (edit).');
  const look = { workplace, query: query.toString(), path: new URL(request.url).pathname };
  const [element, address] = [query.get('element') ?? '', query.get('address') ?? ''];
  const row = query.get('row') ?? undefined;
  return answerWhole(request, 'turns', { ...look, element, address, row, level }, workplace.builder.id);
});
