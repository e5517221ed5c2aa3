import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { draftOf, undoStateIn } from '@/server/drafts/draft';
import { releasedDefinition, releaseInForce } from '@/server/releases';
import { applicationsOf, thisBuilder, workplaceOf } from '@/server/studio/builder';
import { warmUp } from '@/server/work/run';
import { Studio } from '@/ui/studio/shell/studio';

interface Props {
  children: ReactNode;
  params: Promise<{ app: string }>;
}

/** Each bench's title, with the application's name. */
export async function generateMetadata({ params }: Pick<Props, 'params'>): Promise<Metadata> {
  const builder = await thisBuilder();
  const workplace = builder && (await workplaceOf(builder, (await params).app));
  return workplace ? { title: { template: `%s: ${workplace.name}`, default: workplace.name } } : {};
}

/** What all benches of an application share, loaded once. Each bench looks for itself who may open it. */
export default async function BenchesLayout({ children, params }: Props) {
  const { app } = await params;
  const builder = await thisBuilder();
  const workplace = builder && (await workplaceOf(builder, app));
  // The bench leads to signing in, or says that there is nothing.
  if (!workplace) return children;
  warmUp();
  const { applicationId, role } = workplace;
  const [draft, own, inForce, applications] = await Promise.all([
    draftOf(applicationId),
    undoStateIn(applicationId, builder.id),
    releaseInForce(applicationId),
    applicationsOf(builder.id),
  ]);
  const released = inForce && {
    number: inForce.number,
    definition:
      inForce.revision === draft.revision
        ? undefined
        : JSON.stringify(await releasedDefinition(applicationId, inForce.number)),
  };
  return (
    <Studio
      key={app}
      slug={app}
      applications={applications}
      builder={builder.name}
      mayChange={role !== 'reviewer'}
      mayManage={workplace.people}
      mayRelease={workplace.releases}
      owns={role === 'owner'}
      draft={JSON.stringify(draft.definition)}
      revision={draft.revision}
      standing={own}
      released={released}
      pins={workplace.pins}
    >
      {children}
    </Studio>
  );
}
