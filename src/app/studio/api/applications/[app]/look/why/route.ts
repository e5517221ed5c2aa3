import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

/** `GET …/look/why?element=&address=&row=`, and how one looks: why the viewer has that level there. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { searchParams: query, pathname: path } = new URL(request.url);
  const workplace = await needWorkplace((await params).app, 'read');
  const look = { workplace, query: query.toString(), path };
  const [element, address] = [query.get('element') ?? '', query.get('address') ?? ''];
  const row = query.get('row') ?? undefined;
  return answerWhole(request, 'why', { ...look, element, address, row }, workplace.builder.id);
});
