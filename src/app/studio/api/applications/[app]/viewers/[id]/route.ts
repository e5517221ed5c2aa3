import { and, eq } from 'drizzle-orm';
import { database } from '@/server/database/client';
import { isUuid } from '@/server/database/uuid';
import { madeViewers } from '@/server/database/schema';
import { handle, nothing } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { needWorkplace } from '@/server/studio/builder';

/** Forgets a made-up viewer. */
export const DELETE = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const { applicationId } = await needWorkplace(app, 'change');
  if (!isUuid(id)) throw notThere();
  await database()
    .delete(madeViewers)
    .where(and(eq(madeViewers.id, id), eq(madeViewers.applicationId, applicationId)));
  return nothing();
});
