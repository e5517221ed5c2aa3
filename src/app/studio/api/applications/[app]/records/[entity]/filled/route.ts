import { dataFilled } from '@/contract/studio/data';
import { aboutRecords } from '@/server/data/answering';
import { dataOf } from '@/server/data/at';
import { filledIn } from '@/server/data/rows';

export const GET = aboutRecords(dataFilled, async (of) => filledIn(await dataOf(of)));
