import { handle, json } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { lookOfRequest } from '@/server/look/records';
import { turnsAt } from '@/server/look/why';

/** `GET …/look/turn?element=&address=&row=&level=`: the smallest changes that give the viewer that level there. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const query = new URL(request.url).searchParams;
  const look = await lookOfRequest((await params).app, request);
  const level = Number(query.get('level'));
  if (level !== 0 && level !== 1 && level !== 2) throw new Refused(422, 'query', 'level must be 0, 1 or 2.');
  return json({
    turns: await turnsAt(
      look,
      query.get('element') ?? '',
      query.get('address') ?? '',
      query.get('row') ?? undefined,
      level,
    ),
  });
});
