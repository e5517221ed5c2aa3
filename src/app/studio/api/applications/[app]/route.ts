import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, nothing } from '@/server/http/handle';
import { deleteApplication, moveApplication } from '@/server/making/keep';
import { needOwner } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string }> };

const moved = yup.object({ slug: yup.string().max(200).required() }).noUnknown();

/** `PATCH …/applications/<address>`: gives it another address. The old one leads on. */
export const PATCH = handle<Params>(async (request, { params }) => {
  const workplace = await needOwner((await params).app, 'changes its address');
  const { slug } = await readBody(request, moved);
  await moveApplication(workplace, slug);
  return nothing();
});

const named = yup.object({ name: yup.string().max(500).required() }).noUnknown();

/** `DELETE …/applications/<address>`: deletes it with all that is in it. Its name is typed, so that it is that one. */
export const DELETE = handle<Params>(async (request, { params }) => {
  const workplace = await needOwner((await params).app, 'deletes it');
  const { name } = await readBody(request, named);
  await deleteApplication(workplace, name);
  return nothing();
});
