'use client';

import { useQueryClient } from '@tanstack/react-query';
import { asked, useAsked } from '@/ui/client/queries';
import { send } from '@/ui/client/send';
import { builders, giveRights, type LiveRights } from '@/contract/studio/builders';
import { Window } from '../../parts/window';
import { Select } from '@/ui/parts/select';

interface Props {
  readonly app: string;
  readonly tell: (message: string) => void;
  readonly onClose: () => void;
}

/** Why it cannot be chosen who releases. */
const RELEASES: Readonly<Record<string, string>> = {
  owner: 'Owners may always release.',
  reviewer: 'Reviewers change nothing.',
};

/** The owner gives builders rights to what is live: its records, and its people. */
export function RightsWindow({ app, tell, onClose }: Props) {
  const { queryKey } = asked(builders, { app });
  const { data } = useAsked(builders, { app });
  const client = useQueryClient();
  const give = (id: string, right: Partial<LiveRights>): void => {
    client.setQueryData(
      queryKey,
      (now) =>
        now && { ...now, builders: now.builders.map((one) => (one.id === id ? { ...one, ...right } : one)) },
    );
    void send(giveRights, { app, body: { builder: id, ...right } }).then((answer) => {
      tell(answer.ok ? 'Access saved. It applies from the next page they load.' : answer.detail);
      return client.invalidateQueries({ queryKey });
    });
  };
  const lift = (id: string): void =>
    void send(giveRights, { app, body: { builder: id, lift: true } }).then((answer) =>
      tell(answer.ok ? 'They can sign in again without waiting, and are notified.' : answer.detail),
    );
  return (
    <Window title="Access to live data" open onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3">
        Builders normally work with sample records. Builders listed here can reach the data and accounts of
        real people. Everything they do with them is recorded in the audit trail.
      </p>
      <ul className="grid gap-3">
        {data?.builders.map((one) => (
          <li key={one.id} className="border-b border-sheet pb-2">
            <div className="flex items-center gap-2">
              <span className="grow">
                {one.name} <span className="text-quiet">{one.role}</span>
              </span>
              <button
                type="button"
                className="link min-h-[24px]"
                aria-label={`Clear the sign-in delay for ${one.name}`}
                onClick={() => lift(one.id)}
              >
                Clear the sign-in delay
              </button>
            </div>
            <label className="grid grid-cols-[6rem_1fr] items-center gap-2">
              <span className="text-quiet">Records</span>
              <Select
                aria-label={`${one.name}: records`}
                value={one.live}
                onChoose={(chosen) => give(one.id, { live: chosen as LiveRights['live'] })}
                options={[
                  { id: 'none', name: 'sample records only' },
                  { id: 'read', name: 'live records, read-only' },
                  { id: 'change', name: 'live records, read and change' },
                ]}
              />
            </label>
            <label className="mt-1 grid grid-cols-[6rem_1fr] items-center gap-2">
              <span className="text-quiet">People</span>
              <Select
                aria-label={`${one.name}: people`}
                value={one.people ? 'manage' : 'read'}
                onChoose={(chosen) => give(one.id, { people: chosen === 'manage' })}
                options={[
                  { id: 'read', name: 'read-only' },
                  { id: 'manage', name: 'manage, including the messages sent to them' },
                ]}
              />
            </label>
            <label className="mt-1 grid grid-cols-[6rem_1fr] items-center gap-2">
              <span className="text-quiet">Releases</span>
              <Select
                aria-label={`${one.name}: releases`}
                disabled={one.role !== 'editor'}
                title={one.role === 'editor' ? undefined : RELEASES[one.role]}
                value={one.releases ? 'yes' : 'no'}
                onChoose={(chosen) => give(one.id, { releases: chosen === 'yes' })}
                options={[
                  { id: 'no', name: 'changes the draft only' },
                  { id: 'yes', name: 'puts it in force' },
                ]}
              />
            </label>
          </li>
        ))}
      </ul>
    </Window>
  );
}
