import type { Metadata } from 'next';
import { signedInBuilder } from '@/server/studio/entry';
import { HomeFrame } from '@/ui/studio/home/home-frame';
import { isWay, Making } from '@/ui/studio/making/making';

export const metadata: Metadata = { title: 'New application' };

interface Props {
  searchParams: Promise<{ from?: string | string[] }>;
}

/** Where an application is made, from what there is. */
export default async function NewApplication({ searchParams }: Props) {
  const builder = await signedInBuilder('/studio/new');
  const { from } = await searchParams;
  return (
    <HomeFrame builder={builder.name}>
      <Making from={isWay(from) ? from : 'csv'} />
    </HomeFrame>
  );
}
