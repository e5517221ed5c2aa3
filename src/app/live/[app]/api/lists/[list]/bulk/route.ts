import * as yup from 'yup';
import { handle, json, readBody } from '@/server/http/handle';
import { apiVisit } from '@/server/live/api';
import { scopeOf, writerOf } from '@/server/live/visit';
import { WholeList } from '@/server/records/lists';

const body = yup
  .object({
    record: yup.string(),
    records: yup
      .array()
      .of(yup.object({ id: yup.string().required(), version: yup.number().integer().required() }).noUnknown())
      .required(),
    values: yup.object().required(),
  })
  .noUnknown();

/** Changes the same fields of the chosen records of a list: all of them, or none. */
export const POST = handle<{ params: Promise<{ app: string; list: string }> }>(
  async (request, { params }) => {
    const { app, list: id } = await params;
    const now = await apiVisit(app, request);
    const { record, records, values } = await readBody(request, body);
    const list = await WholeList.find(scopeOf(now), id, 'bulk', record);
    const changed = await list.change(writerOf(now), records, values as Record<string, unknown>);
    return json({ changed: changed.length });
  },
);
