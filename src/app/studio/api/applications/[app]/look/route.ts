import { handle, json } from '@/server/http/handle';
import { lookPage } from '@/server/look/look-page';
import { lookOfRequest } from '@/server/look/records';

/**
 * `GET …/look?viewer=&address=&on=&moment=&session=&records=&pane=`, and the lists' own parts: the page that
 * this viewer has.
 */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const query = new URL(request.url).searchParams;
  const look = await lookOfRequest((await params).app, request);
  return json(await lookPage(look, query.get('address') ?? '', query));
});
