'use client';

import { useQueryClient } from '@tanstack/react-query';
import { asked, useAsked } from '@/ui/client/queries';
import { send } from '@/ui/client/send';
import { builders, giveRights, type LiveRights } from '@/contract/studio/builders';
import { Window } from '../../parts/window';

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
      tell(answer.ok ? 'Given. It holds from the next page that they load.' : answer.detail);
      return client.invalidateQueries({ queryKey });
    });
  };
  const lift = (id: string): void =>
    void send(giveRights, { app, body: { builder: id, lift: true } }).then((answer) =>
      tell(answer.ok ? 'They need not wait any more to sign in, and are told.' : answer.detail),
    );
  return (
    <Window title="Rights to what is live" open onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3">
        Builders look at sample records. Whoever has rights here reaches real people’s data and accounts: all
        that they do with them is in the audit trail.
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
                aria-label={`Let ${one.name} sign in without waiting`}
                onClick={() => lift(one.id)}
              >
                Lift the wait after wrong tries
              </button>
            </div>
            <label className="grid grid-cols-[6rem_1fr] items-center gap-2">
              <span className="text-quiet">Records</span>
              <select
                aria-label={`${one.name}: records`}
                className="field-box"
                value={one.live}
                onChange={(event) => give(one.id, { live: event.target.value as LiveRights['live'] })}
              >
                <option value="none">sample records only</option>
                <option value="read">live ones, to read</option>
                <option value="change">live ones, and keep changes</option>
              </select>
            </label>
            <label className="mt-1 grid grid-cols-[6rem_1fr] items-center gap-2">
              <span className="text-quiet">People</span>
              <select
                aria-label={`${one.name}: people`}
                className="field-box"
                value={one.people ? 'manage' : 'read'}
                onChange={(event) => give(one.id, { people: event.target.value === 'manage' })}
              >
                <option value="read">to read</option>
                <option value="manage">to manage, with the messages to them</option>
              </select>
            </label>
            <label className="mt-1 grid grid-cols-[6rem_1fr] items-center gap-2">
              <span className="text-quiet">Releases</span>
              <select
                aria-label={`${one.name}: releases`}
                className="field-box"
                disabled={one.role !== 'editor'}
                title={one.role === 'editor' ? undefined : RELEASES[one.role]}
                value={one.releases ? 'yes' : 'no'}
                onChange={(event) => give(one.id, { releases: event.target.value === 'yes' })}
              >
                <option value="no">changes the draft only</option>
                <option value="yes">puts it in force</option>
              </select>
            </label>
          </li>
        ))}
      </ul>
    </Window>
  );
}
