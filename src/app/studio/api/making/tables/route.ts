import { tablesOf } from '@/contract/studio/making';
import { tablesIn } from '@/server/making/postgres';
import { asBuilder } from '@/server/studio/answering';

export const POST = asBuilder(tablesOf, async (_, { body }) => ({ tables: await tablesIn(body.url.trim()) }));
