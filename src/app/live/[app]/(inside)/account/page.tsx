import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { thisVisit } from '@/server/live/this-visit';
import { AccountView } from '@/ui/live/account-view';

export const metadata: Metadata = { title: 'Your account' };

/** What somebody can see and do about their own account. */
export default async function Account({ params }: { params: Promise<{ app: string }> }) {
  const { app } = await params;
  const visit = await thisVisit(app);
  if (!visit) notFound();
  const base = `/live/${app}`;
  if (!visit.person) redirect(`${base}/sign-in?back=${encodeURIComponent(`${base}/account`)}`);
  if (visit.standing)
    return (
      <p>
        You are acting as {visit.person.name}, and their account is not available to you. Stop acting as them
        to see your own.
      </p>
    );
  const { definition } = visit.access.compiled;
  const { held } = visit.access;
  return (
    <AccountView
      app={app}
      name={visit.person.name}
      roles={definition.roles
        .filter((role) => role.joinable || held.roles.has(role.id))
        .map(({ id, name, description, joinable }) => ({
          id,
          name,
          description: description ?? '',
          held: held.roles.has(id),
          mayTurn: (joinable ?? false) && (!held.roles.has(id) || held.assigned.get(id) === 'everywhere'),
        }))}
    />
  );
}
