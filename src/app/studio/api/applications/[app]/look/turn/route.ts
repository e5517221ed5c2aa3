import { handle } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

/** `GET …/look/turn?element=&address=&row=&level=`: the smallest changes that give the viewer that level there. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { searchParams: query, pathname: path } = new URL(request.url);
  const workplace = await needWorkplace((await params).app, 'read');
  const level = Number(query.get('level'));
  if (level !== 0 && level !== 1 && level !== 2) throw new Refused(422, 'query', 'level must be 0, 1 or 2.');
  const look = { workplace, query: query.toString(), path };
  const [element, address] = [query.get('element') ?? '', query.get('address') ?? ''];
  const row = query.get('row') ?? undefined;
  return answerWhole(request, 'turns', { ...look, element, address, row, level }, workplace.builder.id);
});
