import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { confirm } from '@/server/live/joining';
import { thisVisit } from '@/server/live/this-visit';

export const metadata: Metadata = { title: 'Confirm your address' };

interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<{ token?: string | string[] }>;
}

/** Where the link in a message leads. The token in it is used once. */
export default async function Confirm({ params, searchParams }: Props) {
  const { app } = await params;
  const { token } = await searchParams;
  const visit = await thisVisit(app);
  if (!visit) notFound();
  const done = typeof token === 'string' && (await confirm(visit.applicationId, token));
  return (
    <main className="mx-auto mt-24 w-[31rem] border-t-4 border-ink bg-paper p-6">
      <h1 className="mb-3 text-xl font-semibold">
        {done ? 'Your address is confirmed' : 'This link cannot be used'}
      </h1>
      <p className="mb-4">
        {done
          ? 'You can sign in now.'
          : 'It was used before, or is more than a day old. Sign in if you have done this already; else ask for an account again.'}
      </p>
      <a className="button" href={`/live/${app}/sign-in`}>
        Sign in
      </a>
    </main>
  );
}
