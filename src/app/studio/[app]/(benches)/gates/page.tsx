import type { Metadata } from 'next';
import { firstPeople } from '@/server/work/run';
import { benchOf, type PageQuery } from '@/server/studio/entry';
import { GatesBench } from '@/ui/studio/gates/gates-bench';

export const metadata: Metadata = { title: 'Gates' };

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<PageQuery>;
}

export default async function GatesPage({ params, searchParams }: Props) {
  const workplace = await benchOf((await params).app, 'gates', await searchParams);
  return <GatesBench first={await firstPeople(workplace)} />;
}
