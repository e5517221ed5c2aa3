import * as yup from 'yup';
import type { Condition } from '@/core/condition';
import { conditionSchema } from '@/core/model';
import { handle, json, readBody } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { tryOut } from '@/server/studio/try';

const body = yup
  .object({ condition: conditionSchema as unknown as yup.Schema<Condition>, entity: yup.string().max(60) })
  .noUnknown();

/** For how many people and sample records a condition is true now, with examples. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  const { condition, entity } = await readBody(request, body);
  return json(await tryOut(applicationId, condition, entity));
});
