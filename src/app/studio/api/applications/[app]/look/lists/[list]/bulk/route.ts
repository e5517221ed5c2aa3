import { LARGE, readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { lookOfRequest } from '@/server/look/records';
import { bulkBody, WholeList } from '@/server/records/lists';

/** Changes the same fields of the chosen records of a list: all of them, or none. */
export const POST = handle<{ params: Promise<{ app: string; list: string }> }>(
  async (request, { params }) => {
    const { app, list: id } = await params;
    const look = await lookOfRequest(app, request);
    const { record, records, values } = await readBody(request, bulkBody, LARGE);
    const list = await WholeList.find(look.scope, id, 'bulk', record);
    const changed = await list.change(look.writer, records, values);
    return json({ changed: changed.length });
  },
);
