import { handle, json } from '@/server/http/handle';
import { overReleases } from '@/server/proving/proof';
import { needWorkplace } from '@/server/studio/builder';

/** `GET …/proof/releases`: with how many findings and broken expectations each release went out. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json({ releases: await overReleases(applicationId) });
});
