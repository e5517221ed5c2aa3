import {
  addRow as addContract,
  changeRows as changeContract,
  dataRows as rowsContract,
  deleteRows as deleteContract,
} from '@/contract/studio/data';
import { aboutRecords } from '@/server/data/answering';
import { dataOf } from '@/server/data/at';
import { dataRows } from '@/server/data/rows';
import { addRow, changeRows, deleteRows } from '@/server/data/write';

export const GET = aboutRecords(rowsContract, async (of, { query }) => dataRows(await dataOf(of), query));

export const POST = aboutRecords(addContract, async (of, { body }) => addRow(await dataOf(of), body.values));

export const PATCH = aboutRecords(changeContract, async (of, { body: { records, values } }) =>
  changeRows(await dataOf(of), records, values),
);

export const DELETE = aboutRecords(deleteContract, async (of, { body }) =>
  deleteRows(await dataOf(of), body.records),
);
