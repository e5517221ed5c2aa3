import type { Metadata } from 'next';
import { listPeople } from '@/server/people/list';
import { benchOf } from '@/server/studio/entry';
import { PeopleBench } from '@/ui/studio/people/people-bench';

export const metadata: Metadata = { title: 'People' };

export default async function PeoplePage({ params }: { params: Promise<{ app: string }> }) {
  const { applicationId } = await benchOf((await params).app, 'people');
  return <PeopleBench first={await listPeople(applicationId, { page: 1, size: 25 })} />;
}
