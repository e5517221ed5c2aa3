import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { resolveMenu } from '@/core/access';
import { thisVisit } from '@/server/live/this-visit';
import { asSent } from '@/ui/live/sent';
import { LiveFrame } from './live-host';

interface Props {
  params: Promise<{ app: string }>;
  children: ReactNode;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { app } = await params;
  const visit = await thisVisit(app);
  return { title: visit?.name ?? 'Not found' };
}

/** The frame. It decides nothing for the pages in it: each asks for itself. */
export default async function LiveLayout({ params, children }: Props) {
  const { app } = await params;
  const visit = await thisVisit(app);
  // The page leads on, or says that there is nothing.
  if (!visit) return children;
  return (
    <LiveFrame
      base={`/live/${app}`}
      name={visit.name}
      person={visit.person?.name}
      standing={visit.standing}
      mayStandIn={visit.mayStandIn}
      language={visit.access.compiled.definition.language}
      timeZone={visit.access.compiled.definition.timeZone}
      menu={asSent(resolveMenu(visit.access))}
      unlocks={
        visit.person !== undefined && !visit.standing && visit.access.compiled.definition.unlock !== undefined
      }
    >
      {children}
    </LiveFrame>
  );
}
