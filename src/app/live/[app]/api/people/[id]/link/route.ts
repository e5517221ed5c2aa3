import { liveSendPersonLink } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { PeopleManagement } from '@/server/live/people-management';

export const POST = inLive(liveSendPersonLink, (now, { params }) =>
  PeopleManagement.of(now).sendLink(params.id),
);
