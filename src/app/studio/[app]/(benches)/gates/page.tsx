import type { Metadata } from 'next';
import { firstPeople } from '@/server/studio/first-people';
import { benchOf } from '@/server/studio/entry';
import { GatesBench } from '@/ui/studio/gates/gates-bench';

export const metadata: Metadata = { title: 'Gates' };

export default async function GatesPage({ params }: { params: Promise<{ app: string }> }) {
  const workplace = await benchOf((await params).app, 'gates');
  return <GatesBench first={await firstPeople(workplace)} />;
}
