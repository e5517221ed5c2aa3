import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { thisVisit } from '@/server/live/this-visit';
import { addresseeOf } from '@/server/people/links';
import { ChoosePassword } from '@/ui/live/choose-password';

export const metadata: Metadata = { title: 'Choose a password' };

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<{ token?: string | string[] }>;
}

/** Where the link in a message leads. Looking at it uses nothing up: that is done by choosing a password. */
export default async function Confirm({ params, searchParams }: Props) {
  const { app } = await params;
  const { token } = await searchParams;
  const visit = await thisVisit(app);
  if (!visit) notFound();
  const to = typeof token === 'string' ? await addresseeOf(visit.applicationId, token) : undefined;
  if (to && typeof token === 'string')
    return <ChoosePassword app={app} signIn={`/live/${app}/sign-in`} token={token} email={to.email} />;
  return (
    <main className="mx-auto mt-24 w-[31rem] border-t-4 border-ink bg-paper p-6">
      <h1 className="mb-3 text-xl font-semibold">This link no longer works</h1>
      <p className="mb-4">
        The link has already been used, has expired, or has been replaced by a newer one. If you already have
        a password, sign in. If not, ask for a new link.
      </p>
      <a className="button" href={`/live/${app}/sign-in`}>
        Sign in
      </a>
    </main>
  );
}
