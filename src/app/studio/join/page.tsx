import type { Metadata } from 'next';
import { thisBuilder } from '@/server/studio/builder';
import { invitationAt } from '@/server/studio/invitations';
import { ChoosePassword } from '@/ui/live/choose-password';
import { AcceptInvitation } from '@/ui/studio/home/accept-invitation';

export const metadata: Metadata = { title: 'Invitation' };

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
        <h1 className="mb-3 text-xl font-semibold">This link no longer works</h1>
        <p className="mb-4">
          The link has already been used, has expired, or has been replaced by a newer one. If you have
          already accepted the invitation, sign in. If not, ask the person who invited you for a new link.
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
