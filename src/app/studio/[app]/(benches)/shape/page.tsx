import type { Metadata } from 'next';
import { firstPeople } from '@/server/work/run';
import { benchOf, type PageQuery } from '@/server/studio/entry';
import { ShapeBench } from '@/ui/studio/shape/shape-bench';

export const metadata: Metadata = { title: 'Shape' };

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<PageQuery>;
}

export default async function ShapePage({ params, searchParams }: Props) {
  const workplace = await benchOf((await params).app, 'shape', await searchParams);
  return <ShapeBench first={await firstPeople(workplace)} />;
}
