import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { draftOf, standing } from '@/server/drafts/draft';
import { releasedDefinition, releaseInForce, releaseNumbers } from '@/server/drafts/release';
import { openNotes } from '@/server/look/notes';
import { keptViewers } from '@/server/look/viewers';
import { peopleOf } from '@/server/people/read';
import { applicationsOf, workplaceOf } from '@/server/studio/builder';
import { signedInBuilder } from '@/server/studio/page';
import { LookBench } from '@/ui/studio/look/look-bench';

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export const metadata: Metadata = { title: 'Look' };

export default async function LookPage({ params, searchParams }: Props) {
  const { app } = await params;
  const { p: panes = [] } = await searchParams;
  const links = typeof panes === 'string' ? [panes] : panes;
  const back = new URLSearchParams(links.map((one) => ['p', one]));
  const builder = await signedInBuilder(`/studio/${app}/look${links.length > 0 ? `?${back}` : ''}`);
  const workplace = await workplaceOf(builder, app);
  if (!workplace) notFound();
  const { applicationId, role, pins, live } = workplace;
  const [draft, own, inForce, people, applications, releases, kept, notes] = await Promise.all([
    draftOf(applicationId),
    standing(applicationId, builder.id),
    releaseInForce(applicationId),
    peopleOf(applicationId),
    applicationsOf(builder.id),
    releaseNumbers(applicationId),
    keptViewers(applicationId),
    openNotes(applicationId),
  ]);
  const released = inForce && {
    number: inForce.number,
    definition: await releasedDefinition(applicationId, inForce.number),
  };
  return (
    <LookBench
      slug={app}
      applications={applications}
      builder={builder.name}
      mayChange={role !== 'reviewer'}
      isOwner={role === 'owner'}
      definition={draft.definition}
      revision={draft.revision}
      standing={own}
      released={released}
      people={people}
      pins={pins}
      releases={releases}
      kept={kept}
      live={live}
      notes={notes}
    />
  );
}
