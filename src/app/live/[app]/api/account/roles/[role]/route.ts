import { joinRole, leaveRole } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { joinOrLeave } from '@/server/live/joining';

const turn = (contract: typeof joinRole, join: boolean) =>
  inLive(contract, (now, { params: { role } }) =>
    joinOrLeave(now, now.access.compiled.definition, role, join),
  );

export const PUT = turn(joinRole, true);
export const DELETE = turn(leaveRole, false);
