import { liveSendPersonLink } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { LookingAfter } from '@/server/live/looking-after';

export const POST = inLive(liveSendPersonLink, (now, { params }) => LookingAfter.of(now).sendLink(params.id));
