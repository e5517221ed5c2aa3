import type { Metadata } from 'next';
import { invitedBy } from '@/server/studio/builders';
import { ChoosePassword } from '@/ui/live/choose-password';

export const metadata: Metadata = { title: 'Choose a password' };

interface Props {
  searchParams: Promise<{ token?: string | string[] }>;
}

/** Where the link leads that a builder was let in with. Looking at it uses nothing up. */
export default async function Join({ searchParams }: Props) {
  const { token } = await searchParams;
  const to = typeof token === 'string' ? await invitedBy(token) : undefined;
  if (to && typeof token === 'string')
    return <ChoosePassword api="/studio/api/join" signIn="/studio/sign-in" token={token} email={to.email} />;
  return (
    <main className="mx-auto mt-24 w-[31rem] border-t-4 border-ink bg-paper p-6">
      <h1 className="mb-3 text-xl font-semibold">This link cannot be used</h1>
      <p className="mb-4">
        It was used before, is too old, or another one was made since. Sign in if you have chosen a password
        already; else ask who let you in for another link.
      </p>
      <a className="button" href="/studio/sign-in">
        Sign in
      </a>
    </main>
  );
}
