import type { Metadata } from 'next';
import { releaseNumbers } from '@/server/releases';
import { openNotes } from '@/server/look/notes';
import { keptViewers } from '@/server/look/viewers';
import { benchOf, type PageQuery } from '@/server/studio/entry';
import { firstPeople } from '@/server/work/run';
import { LookBench } from '@/ui/studio/look/look-bench';

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<PageQuery>;
}

export const metadata: Metadata = { title: 'Look' };

export default async function LookPage({ params, searchParams }: Props) {
  const workplace = await benchOf((await params).app, 'look', await searchParams);
  const { applicationId, live } = workplace;
  const [first, releases, kept, notes] = await Promise.all([
    firstPeople(workplace),
    releaseNumbers(applicationId),
    keptViewers(applicationId),
    openNotes(applicationId),
  ]);
  return <LookBench first={first} releases={releases} kept={kept} live={live} notes={notes} />;
}
