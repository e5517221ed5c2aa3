import { handle, json } from '@/server/http/handle';
import { countsOf } from '@/server/proving/proof';
import { needWorkplace } from '@/server/studio/builder';

/** `GET …/proof/counts`: how much there is to look at, for the bar; null while nothing was looked through. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (_, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  return json((await countsOf(applicationId, builder.id)) ?? null);
});
