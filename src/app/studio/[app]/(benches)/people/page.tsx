import type { Metadata } from 'next';
import { listPeople } from '@/server/people/list';
import { benchOf, type PageQuery } from '@/server/studio/entry';
import { PeopleBench } from '@/ui/studio/people/people-bench';

export const metadata: Metadata = { title: 'People' };

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<PageQuery>;
}

export default async function PeoplePage({ params, searchParams }: Props) {
  const { applicationId } = await benchOf((await params).app, 'people', await searchParams);
  return <PeopleBench first={await listPeople(applicationId, { page: 1, size: 25 })} />;
}
