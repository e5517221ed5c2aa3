import { forbidden, notFound, redirect } from 'next/navigation';
import { landingOf } from '@/core/access/landing';
import { addressOf } from '@/core/access/resolve';
import { pageAt } from '@/server/live/page';
import { thisVisit } from '@/server/live/this-visit';
import { scopeOf } from '@/server/live/visit';
import { ScreenView } from '@/ui/live/screen-view';

interface Props {
  params: Promise<{ app: string; address?: string[] }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

/** Any address of a released application, for whoever asks. */
export default async function LivePage({ params, searchParams }: Props) {
  const { app, address: parts = [] } = await params;
  const visit = await thisVisit(app);
  if (!visit) notFound();
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
  const outcome = await pageAt(scopeOf(visit), address, query);
  switch (outcome.is) {
    case 'open':
      return <ScreenView key={address} page={outcome.page} />;
    case 'sent':
      return visit.person ? redirect(`${base}/${outcome.address}`) : signIn();
    case 'refused':
      if (!visit.person) return signIn();
      return outcome.text === undefined ? forbidden() : <Refused text={outcome.text} />;
    case 'not-there':
      return visit.person ? notFound() : signIn();
  }
}

/** The builder's own words for a screen that is closed. */
function Refused({ text }: { text: string }) {
  return (
    <>
      <h1 className="text-xl font-semibold">This is not open to you</h1>
      <p className="mt-2 max-w-prose whitespace-pre-wrap">{text}</p>
    </>
  );
}

function NothingOpen() {
  return (
    <>
      <h1 className="text-xl font-semibold">Nothing is open to you here yet</h1>
      <p className="mt-2 max-w-prose">
        You are signed in, but no screen of this application is open to you. Ask the people who look after it
        for the role that you need.
      </p>
    </>
  );
}
