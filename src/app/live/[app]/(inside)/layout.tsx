import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { thisVisit } from '@/server/live/this-visit';
import { LiveHost } from './live-host';

interface Props {
  params: Promise<{ app: string }>;
  /** What stands around the page: a route of its own, since it goes by the address. */
  frame: ReactNode;
  children: ReactNode;
}

export async function generateMetadata({ params }: Pick<Props, 'params'>): Promise<Metadata> {
  const { app } = await params;
  const visit = await thisVisit(app);
  return visit ? { title: { template: `%s: ${visit.name}`, default: visit.name } } : { title: 'Not found' };
}

/** It decides nothing for the pages in it: each asks for itself. */
export default async function LiveLayout({ params, frame, children }: Props) {
  const { app } = await params;
  const visit = await thisVisit(app);
  // The page leads on, or says that there is nothing.
  if (!visit) return children;
  const { language, timeZone, unlock } = visit.access.compiled.definition;
  return (
    <LiveHost
      app={app}
      base={`/live/${app}`}
      person={visit.person?.name}
      standing={visit.standing}
      language={language}
      timeZone={timeZone}
      unlocks={visit.person !== undefined && !visit.standing && unlock !== undefined}
      frame={frame}
    >
      {children}
    </LiveHost>
  );
}
