import { and, eq } from 'drizzle-orm';
import * as yup from 'yup';
import { listOf } from '@/core/model';
import { database } from '@/server/database/client';
import { memberships } from '@/server/database/schema';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';

const body = yup.object({ people: listOf(yup.string().uuid().required(), 40) }).noUnknown();

/** Whom this builder keeps in their rail. Theirs alone, so reviewers may too. */
export const PUT = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  const { people } = await readBody(request, body);
  await database()
    .update(memberships)
    .set({ pins: people as string[] })
    .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builder.id)));
  return nothing();
});
