import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { draftOf, standing } from '@/server/drafts/draft';
import { releasedDefinition, releaseInForce } from '@/server/drafts/release';
import { listPeople } from '@/server/people/list';
import { applicationsOf, workplaceOf } from '@/server/studio/builder';
import { signedInBuilder } from '@/server/studio/page';
import { PeopleBench } from '@/ui/studio/people/people-bench';

export const metadata: Metadata = { title: 'People' };

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<{ part?: string | string[] }>;
}

export default async function PeoplePage({ params, searchParams }: Props) {
  const { app } = await params;
  const builder = await signedInBuilder(`/studio/${app}/people`);
  const workplace = await workplaceOf(builder, app);
  if (!workplace) notFound();
  const { applicationId, role } = workplace;
  const [draft, own, inForce, first, applications, query] = await Promise.all([
    draftOf(applicationId),
    standing(applicationId, builder.id),
    releaseInForce(applicationId),
    listPeople(applicationId, { page: 1, size: 25 }),
    applicationsOf(builder.id),
    searchParams,
  ]);
  const released = inForce && {
    number: inForce.number,
    definition: await releasedDefinition(applicationId, inForce.number),
  };
  return (
    <PeopleBench
      slug={app}
      applications={applications}
      builder={builder.name}
      mayChange={role !== 'reviewer'}
      mayManage={workplace.people}
      owns={role === 'owner'}
      definition={draft.definition}
      revision={draft.revision}
      standing={own}
      released={released}
      first={first}
      part={typeof query.part === 'string' ? query.part : 'people'}
    />
  );
}
