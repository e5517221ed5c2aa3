import { forbidden, notFound, redirect } from 'next/navigation';
import { landingOf } from '@/core';
import { addressOf, type ShownPage } from '@/core/access';
import { ledOn } from '@/server/making/former';
import { pageAt } from '@/server/live/screen-page';
import { auditStandIn } from '@/server/live/standing';
import { openedScreen } from '@/server/live/session-values';
import { thisVisit, visitNow } from '@/server/live/this-visit';
import { unlockedOn } from '@/server/live/unlock';
import { scopeOf } from '@/server/live/visit';
import type { Visit } from '@/server/live/who-visits';
import { NothingOpen, Refused } from '@/ui/live/refusals';
import { asSent } from '@/ui/live/sent';
import { SentScreen } from '../sent-screen';

/** The page with what is unlocked on its records. */
async function withUnlocked(visit: Visit, page: ShownPage): Promise<ShownPage> {
  const rows = Object.values(page.lists).flatMap((list) => list.rows.map(({ id }) => id));
  const unlocked = await unlockedOn(visit, [
    ...rows,
    ...(page.screen.binds?.record ? [page.screen.binds.record] : []),
  ]);
  return unlocked.length > 0 ? { ...page, unlocked } : page;
}

interface Props {
  params: Promise<{ app: string; address?: string[] }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

/** Any address of a released application, for whoever asks. */
export default async function LivePage({ params, searchParams }: Props) {
  const { app, address: parts = [] } = await params;
  const visit = await thisVisit(app);
  if (!visit) return ledOn(app, parts);
  await auditStandIn(visit, 'looked', `/${parts.join('/')}`);
  const base = `/live/${app}`;
  const address = parts.join('/');
  const query = new URLSearchParams(
    Object.entries(await searchParams).flatMap(([key, value]) =>
      typeof value === 'string' ? [[key, value]] : [],
    ),
  );
  const signIn = (): never =>
    redirect(
      `${base}/sign-in?back=${encodeURIComponent(`${base}/${address}${query.size > 0 ? `?${query}` : ''}`)}`,
    );
  if (address === '') {
    const landing = landingOf(visit.access, visit.person?.startScreen ?? undefined);
    if (landing) redirect(`${base}/${addressOf(landing)}`);
    return visit.person ? <NothingOpen /> : signIn();
  }
  let outcome = await pageAt(scopeOf(visit), address, query);
  if (outcome.is === 'open' && (await openedScreen(visit, outcome.page.screen.id))) {
    const again = await visitNow(app);
    if (again) outcome = await pageAt(scopeOf(again), address, query);
  }
  switch (outcome.is) {
    case 'open':
      return <SentScreen key={address} page={asSent(await withUnlocked(visit, outcome.page))} />;
    case 'sent':
      return visit.person ? redirect(`${base}/${outcome.address}`) : signIn();
    case 'refused':
      if (!visit.person) return signIn();
      return outcome.text === undefined ? forbidden() : <Refused text={outcome.text} />;
    case 'not-there':
      return visit.person ? notFound() : signIn();
  }
}
