import * as yup from 'yup';
import { MOST_NUMBER, readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { listSignOffs } from '@/server/proving/sign-offs';
import { needWorkplace } from '@/server/studio/builder';
import { answerWhole } from '@/server/work/run';

type Params = { params: Promise<{ app: string }> };

/** `GET …/sign-offs`: what was signed off, the last first. */
export const GET = handle<Params>(async (_, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return json({ signOffs: await listSignOffs(applicationId) });
});

const body = yup
  .object({
    title: yup.string().trim().matches(/\S/, 'must not be empty').max(120).required(),
    revision: yup.number().integer().min(0).max(MOST_NUMBER).required(),
  })
  .noUnknown();

/** `POST …/sign-offs {title, revision}`: whoever may look may confirm what they saw; it changes nothing else. */
export const POST = handle<Params>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  const { title, revision } = await readBody(request, body);
  const input = { applicationId, builderId: builder.id, title, revision };
  return answerWhole(request, 'sign-off', input, builder.id, 201);
});
