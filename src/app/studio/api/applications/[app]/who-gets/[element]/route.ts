import { handle, json } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { whoGetsNow } from '@/server/studio/who-gets';

/** Who gets this element of the draft, by way in, with names. */
export const GET = handle<{ params: Promise<{ app: string; element: string }> }>(
  async (_request, { params }) => {
    const { app, element } = await params;
    const { applicationId } = await needWorkplace(app, 'read');
    return json(await whoGetsNow(applicationId, element));
  },
);
