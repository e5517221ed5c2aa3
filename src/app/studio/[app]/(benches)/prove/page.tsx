import type { Metadata } from 'next';
import { listSignOffs } from '@/server/proving/sign-offs';
import { listSweeps } from '@/server/proving/sweep/sweeps';
import { proofOf } from '@/server/proving/proof';
import { listExpectations } from '@/server/proving/expectations';
import { type PageQuery, benchOf } from '@/server/studio/entry';
import { ProveBench } from '@/ui/studio/prove/prove-bench';

export const metadata: Metadata = { title: 'Prove' };

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<PageQuery>;
}

export default async function ProvePage({ params, searchParams }: Props) {
  const { applicationId } = await benchOf((await params).app, 'prove', await searchParams);
  const [proof, expectations, sweeps, signOffs] = await Promise.all([
    proofOf(applicationId),
    listExpectations(applicationId),
    listSweeps(applicationId),
    listSignOffs(applicationId),
  ]);
  return <ProveBench proof={proof ?? null} expectations={expectations} sweeps={sweeps} signOffs={signOffs} />;
}
