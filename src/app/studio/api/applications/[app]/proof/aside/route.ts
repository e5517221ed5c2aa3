import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { setFindingAside } from '@/server/proving/proof';
import { needWorkplace } from '@/server/studio/builder';

const body = yup
  .object({
    key: yup.string().max(2000).required(),
    reason: yup.string().matches(/\S/, 'must not be empty').max(500).nullable().defined(),
  })
  .noUnknown();

/** `PUT …/proof/aside {key, reason}`: sets a finding aside; with null as its reason, it is there again. */
export const PUT = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'change');
  const { key, reason } = await readBody(request, body);
  await setFindingAside(applicationId, builder.id, key, reason);
  return nothing();
});
