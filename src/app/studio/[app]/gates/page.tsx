import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { draftOf, standing } from '@/server/drafts/draft';
import { releasedDefinition, releaseInForce } from '@/server/drafts/release';
import { peopleOf } from '@/server/people/read';
import { applicationsOf, workplaceOf } from '@/server/studio/builder';
import { signedInBuilder } from '@/server/studio/page';
import { GatesBench } from '@/ui/studio/gates-bench';

export const metadata: Metadata = { title: 'Gates' };

interface Props {
  params: Promise<{ app: string }>;
}

export default async function GatesPage({ params }: Props) {
  const { app } = await params;
  const builder = await signedInBuilder(`/studio/${app}/gates`);
  const workplace = await workplaceOf(builder, app);
  if (!workplace) notFound();
  const { applicationId, role, pins } = workplace;
  const [draft, own, inForce, people, applications] = await Promise.all([
    draftOf(applicationId),
    standing(applicationId, builder.id),
    releaseInForce(applicationId),
    peopleOf(applicationId),
    applicationsOf(builder.id),
  ]);
  const released = inForce && {
    number: inForce.number,
    definition: await releasedDefinition(applicationId, inForce.number),
  };
  return (
    <GatesBench
      slug={app}
      applications={applications}
      builder={builder.name}
      mayChange={role !== 'reviewer'}
      definition={draft.definition}
      revision={draft.revision}
      standing={own}
      released={released}
      people={people}
      pins={pins}
    />
  );
}
