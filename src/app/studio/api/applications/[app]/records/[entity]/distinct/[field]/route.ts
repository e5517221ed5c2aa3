import { dataDistinct } from '@/contract/studio/data';
import { aboutRecords } from '@/server/data/answering';
import { dataOf } from '@/server/data/at';
import { distinctIn } from '@/server/data/rows';

export const GET = aboutRecords(dataDistinct, async (of, { params }) => ({
  values: (await distinctIn(await dataOf(of), params.field)) ?? null,
}));
