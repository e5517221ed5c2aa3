import { eq } from 'drizzle-orm';
import * as yup from 'yup';
import { database } from '@/server/database/client';
import { applications, auditEvents } from '@/server/database/schema';
import { readBody } from '@/server/http/body';
import { handle, json, nothing } from '@/server/http/handle';
import { needOwner, needWorkplace } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string }> };

/** `GET …/proof/settings`: what holds for releases and for what was signed off. */
export const GET = handle<Params>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  const [row] = await database()
    .select({ mayBreak: applications.mayBreak, remindDays: applications.remindDays })
    .from(applications)
    .where(eq(applications.id, applicationId));
  return json(row);
});

const body = yup
  .object({
    mayBreak: yup.boolean(),
    remindDays: yup.number().integer().min(1).max(3650).nullable(),
  })
  .noUnknown();

/** `PATCH …/proof/settings`: only owners set it, and it is in the audit trail. */
export const PATCH = handle<Params>(async (request, { params }) => {
  const { applicationId, builder } = await needOwner((await params).app, 'says what a release may break');
  const { mayBreak, remindDays } = await readBody(request, body);
  const to = { ...(mayBreak !== undefined && { mayBreak }), ...(remindDays !== undefined && { remindDays }) };
  if (Object.keys(to).length === 0) return nothing();
  await database().transaction(async (tx) => {
    await tx.update(applications).set(to).where(eq(applications.id, applicationId));
    await tx.insert(auditEvents).values({
      applicationId,
      builderId: builder.id,
      what: 'proof-settings',
      detail: Object.fromEntries(Object.entries(to).map(([key, value]) => [key, String(value)])),
    });
  });
  return nothing();
});
