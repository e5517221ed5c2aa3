import { makeUpRecords } from '@/contract/studio/data';
import { aboutRecords } from '@/server/data/answering';
import { inWorker } from '@/server/work/run';

export const POST = aboutRecords(
  makeUpRecords,
  async (of, { request: { signal }, body: { seed, count } }) => {
    await inWorker('made-up', { ...of, seed, count }, { owner: of.workplace.builder.id, signal });
  },
);
