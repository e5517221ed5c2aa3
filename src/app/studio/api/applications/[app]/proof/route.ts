import { handle, json } from '@/server/http/handle';
import { proofOf } from '@/server/proving/proof';
import { needWorkplace } from '@/server/studio/builder';

/** `GET …/proof`: what was found out about the newest revision; null while nothing was yet. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json((await proofOf(applicationId)) ?? null);
});
