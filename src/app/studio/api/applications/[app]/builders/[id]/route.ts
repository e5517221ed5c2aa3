import * as yup from 'yup';
import { isUuid } from '@/server/database/uuid';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { needOwner, needWorkplace } from '@/server/studio/builder';
import { BUILDER_ROLES, changeBuilder } from '@/server/studio/builders';

type Params = { params: Promise<{ app: string; id: string }> };

const body = yup.object({ role: yup.string().oneOf(BUILDER_ROLES).required() }).noUnknown();

/** Gives a builder another role in the application. */
export const PATCH = handle<Params>(async (request, { params }) => {
  const { app, id } = await params;
  const workplace = await needOwner(app, 'changes what builders may do');
  if (!isUuid(id)) throw notThere();
  const { role } = await readBody(request, body);
  await changeBuilder(workplace, id, role);
  return nothing();
});

/** Lets a builder out of the application. Everybody may go by themselves. */
export const DELETE = handle<Params>(async (_, { params }) => {
  const { app, id } = await params;
  const here = await needWorkplace(app, 'read');
  const workplace = here.builder.id === id ? here : await needOwner(app, 'lets builders out');
  if (!isUuid(id)) throw notThere();
  await changeBuilder(workplace, id, null);
  return nothing();
});
