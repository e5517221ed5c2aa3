import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

/** Who gets this element of the draft, by way in, with names. */
export const GET = handle<{ params: Promise<{ app: string; element: string }> }>(
  async (request, { params }) => {
    const { app, element } = await params;
    const { applicationId, builder } = await needWorkplace(app, 'read');
    return answerWhole(request, 'who-gets', { applicationId, element }, builder.id);
  },
);
