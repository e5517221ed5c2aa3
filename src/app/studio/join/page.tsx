import type { Metadata } from 'next';
import { thisBuilder } from '@/server/studio/builder';
import { invitationAt } from '@/server/studio/invitations';
import { ChoosePassword } from '@/ui/live/choose-password';
import { AcceptInvitation } from '@/ui/studio/home/accept-invitation';

export const metadata: Metadata = { title: 'You are let in' };

interface Props {
  searchParams: Promise<{ token?: string | string[] }>;
}

/** Where the link leads that a builder was let in with. Looking at it uses nothing up. */
export default async function Join({ searchParams }: Props) {
  const { token } = await searchParams;
  const invitation = typeof token === 'string' ? await invitationAt(token) : undefined;
  if (typeof token !== 'string' || !invitation)
    return (
      <main className="mx-auto mt-24 w-[31rem] border-t-4 border-ink bg-paper p-6">
        <h1 className="mb-3 text-xl font-semibold">This link cannot be used</h1>
        <p className="mb-4">
          It was used before, is too old, or another one was made since. Sign in if you have opened it
          already; else ask who let you in for another link.
        </p>
        <a className="button" href="/studio/sign-in">
          Sign in
        </a>
      </main>
    );
  const { email, application, role, known } = invitation;
  const builder = await thisBuilder();
  const signIn = `/studio/sign-in?back=${encodeURIComponent(`/studio/join?token=${token}`)}`;
  if (builder || known)
    return <AcceptInvitation {...{ token, email, application, role, signIn }} as={builder?.name} />;
  return <ChoosePassword signIn="/studio/sign-in" token={token} email={email} />;
}
