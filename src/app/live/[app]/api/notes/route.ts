import { sendNote as contract } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { sendNote } from '@/server/live/notes';

export const POST = inLive(contract, (now, { body }) => sendNote(now, body));
