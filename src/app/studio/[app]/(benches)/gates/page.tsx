import type { Metadata } from 'next';
import { peopleOf } from '@/server/people/read';
import { benchOf } from '@/server/studio/entry';
import { GatesBench } from '@/ui/studio/gates/gates-bench';

export const metadata: Metadata = { title: 'Gates' };

export default async function GatesPage({ params }: { params: Promise<{ app: string }> }) {
  const { applicationId } = await benchOf((await params).app, 'gates');
  return <GatesBench people={await peopleOf(applicationId)} />;
}
