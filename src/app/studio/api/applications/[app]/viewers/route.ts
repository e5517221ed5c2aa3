import * as yup from 'yup';
import { type MadeViewer, madeViewerSchema } from '@/core/access';
import { database } from '@/server/database/client';
import { madeViewers } from '@/server/database/schema';
import { readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { keptViewers } from '@/server/look/viewers';
import { needWorkplace } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string }> };

/** The made-up viewers that were named and kept. */
export const GET = handle<Params>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json({ viewers: await keptViewers(applicationId) });
});

const body: yup.Schema<{ name: string; viewer: MadeViewer }> = yup
  .object({
    name: yup.string().matches(/\S/, 'must not be empty').max(80).required(),
    viewer: madeViewerSchema,
  })
  .noUnknown();

/** Keeps a made-up viewer under a name, for all builders of the application. */
export const POST = handle<Params>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'change');
  const { name, viewer } = await readBody(request, body);
  const [row] = await database()
    .insert(madeViewers)
    .values({ applicationId, name: name.trim(), viewer })
    .returning({ id: madeViewers.id });
  return json({ id: row?.id }, { status: 201 });
});
