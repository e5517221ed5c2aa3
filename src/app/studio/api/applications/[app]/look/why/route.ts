import { handle, json } from '@/server/http/handle';
import { lookOfRequest } from '@/server/look/records';
import { whyAt } from '@/server/look/why';

/** `GET …/look/why?element=&address=&row=`, and how one looks: why the viewer has that level there. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const query = new URL(request.url).searchParams;
  const look = await lookOfRequest((await params).app, request);
  return json(
    await whyAt(look, query.get('element') ?? '', query.get('address') ?? '', query.get('row') ?? undefined),
  );
});
