'use client';

import { useState } from 'react';
import { send, type Reply } from '@/ui/client/send';
import {
  type ManagedPerson,
  liveChangePerson,
  liveLiftPersonWaits,
  liveSendPersonLink,
  type RoleOffer,
} from '@/contract/live';
import type { PersonChange } from '@/contract/people-input';
import { useConfirm } from '../parts/asking';
import { Window } from '../parts/window';
import { useHost } from './host';
import { GiveRole } from '../parts/give-role';

type AssignedRole = ManagedPerson['assignments'][number];

interface RoleActions {
  readonly roles: readonly RoleOffer[];
  readonly onDone: () => Promise<void>;
}

export function EditPerson({ person, roles, onDone }: RoleActions & { person: ManagedPerson }) {
  const host = useHost();
  const confirm = useConfirm();
  const [told, setTold] = useState('');
  const at = { app: host.people ?? '', id: person.id };
  const change = async (body: PersonChange): Promise<void> => {
    const answer = await send(liveChangePerson, { ...at, body });
    setTold(answer.ok ? 'Done.' : [answer.detail, ...Object.values(answer.fields)].join(' '));
    await onDone();
  };
  const take = async (one: AssignedRole): Promise<void> => {
    const title = `Remove the role ${one.name} from ${person.name}?`;
    if (await confirm({ title, text: 'The change takes effect immediately.', go: 'Remove role' }))
      await change({ take: [plainOf(one)] });
  };
  const turn = async (): Promise<void> => {
    const question = {
      title: `Disable the account of ${person.name}?`,
      text: 'They are signed out immediately and cannot sign in until the account is enabled again.',
      go: 'Disable account',
    };
    if (!person.active || (await confirm(question))) await change({ active: !person.active });
  };
  const sendLink = async (): Promise<void> => {
    const question = {
      title: `Reset the password of ${person.name}?`,
      text: `We will send a link to ${person.email} so that they can choose a new password. Any earlier link stops working.`,
      go: 'Send link',
    };
    if (!(await confirm(question))) return;
    tellOf(await send(liveSendPersonLink, at), 'A link to choose a password has been sent to them.');
  };
  const tellOf = (answer: Reply<unknown>, done: string): void => setTold(answer.ok ? done : answer.detail);
  return (
    <Window
      title={person.name}
      onOpenChange={() => setTold('')}
      trigger={
        <button type="button" className="button" aria-label={`Edit ${person.name}`}>
          Edit
        </button>
      }
    >
      <h3 className="mb-1 font-medium">Roles</h3>
      <ul className="mb-2 grid gap-1">
        {person.assignments.map((one, n) => (
          <li key={n} className="flex items-baseline gap-3">
            <span className="grow">
              {one.name}
              {periodOf(one, host.day)}
            </span>
            {one.mine ? (
              <button
                type="button"
                className="link shrink-0"
                aria-label={`Remove ${one.name}`}
                onClick={() => void take(one)}
              >
                Remove
              </button>
            ) : (
              <span className="text-quiet">you cannot remove this role</span>
            )}
          </li>
        ))}
        {person.assignments.length === 0 && <li className="text-quiet">None.</li>}
      </ul>
      <GiveRole
        roles={roles}
        language={host.language}
        timeZone={host.timeZone}
        onGive={(given) => void change({ give: [given] })}
      />
      <div className="mt-4 flex flex-wrap gap-2">
        <button type="button" className="button" disabled={!person.link} onClick={() => void turn()}>
          {person.active ? 'Disable account' : 'Enable account'}
        </button>
        <button type="button" className="button" disabled={!person.link} onClick={() => void sendLink()}>
          Reset password…
        </button>
        <button
          type="button"
          className="button"
          disabled={!person.link}
          onClick={() =>
            void send(liveLiftPersonWaits, at).then((answer) =>
              tellOf(answer, 'They can sign in again without waiting.'),
            )
          }
        >
          Clear the sign-in delay
        </button>
      </div>
      {!person.link && (
        <p className="mt-2 text-quiet">
          You cannot change this account, because this person has roles that you are not allowed to assign.
        </p>
      )}
      {told && (
        <p role="alert" className="mt-3 border-l-4 border-ink bg-sheet px-3 py-2">
          {told}
        </p>
      )}
    </Window>
  );
}

/** From when and until when it counts, where that is not always. */
const periodOf = ({ from, until }: AssignedRole, day: (moment: string) => string): string =>
  `${from ? `, from ${day(from)}` : ''}${until ? `, until ${day(until)}` : ''}`;

/** An assignment as it is given and taken. */
const plainOf = ({ role, unit, from, until }: AssignedRole) => ({
  role,
  ...(unit !== undefined && { unit }),
  ...(from !== undefined && { from }),
  ...(until !== undefined && { until }),
});
