import type { Metadata } from 'next';
import { forbidden, notFound, redirect } from 'next/navigation';
import { landingOf } from '@/core';
import { addressOf, type ShownPage } from '@/core/access';
import { ledOn } from '@/server/former-address';
import { auditStandIn } from '@/server/live/acting-as';
import { pageTitle } from '@/server/live/page-title';
import { thisPage } from '@/server/live/this-page';
import { thisVisit } from '@/server/live/this-visit';
import { unlockedOn } from '@/server/live/unlock';
import type { Visit } from '@/server/live/who-visits';
import { NothingOpen, Refused } from '@/ui/live/refusals';
import { asSent } from '@/ui/live/sent';
import { askedAt, type AddressProps } from '../../address';
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

/** The names of the screen and of its record, as far as they are on the page. */
export async function generateMetadata(props: AddressProps): Promise<Metadata> {
  const { app, address, query } = await askedAt(props);
  const page = address === '' ? undefined : await thisPage(app, address, query);
  if (page?.outcome.is !== 'open') return {};
  return { title: pageTitle(page.visit.access.compiled, page.outcome.page.screen) };
}

/** Any address of a released application, for whoever asks. */
export default async function LivePage(props: AddressProps) {
  const { app, parts, address, query } = await askedAt(props);
  const visit = await thisVisit(app);
  if (!visit) return ledOn(app, parts);
  await auditStandIn(visit, 'looked', `/${address}`);
  const base = `/live/${app}`;
  const signIn = (): never =>
    redirect(`${base}/sign-in?back=${encodeURIComponent(`${base}/${address}${query && `?${query}`}`)}`);
  if (address === '') {
    const landing = landingOf(visit.access, visit.person?.startScreen ?? undefined);
    if (landing) redirect(`${base}/${addressOf(landing)}`);
    return visit.person ? <NothingOpen /> : signIn();
  }
  const page = await thisPage(app, address, query);
  if (!page) return notFound();
  const { outcome } = page;
  switch (outcome.is) {
    case 'open':
      return <SentScreen key={address} page={asSent(await withUnlocked(page.visit, outcome.page))} />;
    case 'sent':
      return visit.person ? redirect(`${base}/${outcome.address}`) : signIn();
    case 'refused':
      if (!visit.person) return signIn();
      return outcome.text === undefined ? forbidden() : <Refused text={outcome.text} />;
    case 'not-there':
      return visit.person ? notFound() : signIn();
  }
}
