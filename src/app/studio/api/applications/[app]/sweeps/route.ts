import { startSweep as startContract, stopSweep as stopContract, sweeps } from '@/contract/studio/proving';
import { listSweeps, startSweep, stopSweep } from '@/server/proving/sweep/sweeps';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(sweeps, async ({ applicationId }) => ({
  sweeps: await listSweeps(applicationId),
}));

export const POST = inApplication(startContract, async ({ applicationId, builder }, { body }) => ({
  id: await startSweep(applicationId, builder.id, body),
}));

export const DELETE = inApplication(stopContract, ({ applicationId }) => stopSweep(applicationId));
