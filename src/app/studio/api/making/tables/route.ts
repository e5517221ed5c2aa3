import * as yup from 'yup';
import { readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { tablesIn } from '@/server/making/postgres';
import { needBuilder } from '@/server/studio/builder';

const body = yup.object({ url: yup.string().max(2000).default('') }).noUnknown();

/** The tables of another database, by a connection that is used for this and not kept. */
export const POST = handle(async (request) => {
  await needBuilder();
  const { url } = await readBody(request, body);
  return json({ tables: await tablesIn(url.trim()) });
});
