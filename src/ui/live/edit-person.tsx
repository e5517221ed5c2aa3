'use client';

import { useState } from 'react';
import { send, type Reply } from '@/ui/client/send';
import {
  type CaredFor,
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

type Given = CaredFor['assignments'][number];

interface Doing {
  readonly roles: readonly RoleOffer[];
  readonly onDone: () => Promise<void>;
}

export function EditPerson({ person, roles, onDone }: Doing & { person: CaredFor }) {
  const host = useHost();
  const confirm = useConfirm();
  const [told, setTold] = useState('');
  const at = { app: host.people ?? '', id: person.id };
  const change = async (body: PersonChange): Promise<void> => {
    const answer = await send(liveChangePerson, { ...at, body });
    setTold(answer.ok ? 'Done.' : [answer.detail, ...Object.values(answer.fields)].join(' '));
    await onDone();
  };
  const take = async (one: Given): Promise<void> => {
    const title = `Take ${one.name} away from ${person.name}?`;
    if (await confirm({ title, text: 'It counts at once.', go: 'Take it away' }))
      await change({ take: [plainOf(one)] });
  };
  const turn = async (): Promise<void> => {
    const question = {
      title: `Switch ${person.name} off?`,
      text: 'Their sessions end at once, and they cannot sign in until they are switched on again.',
      go: 'Switch off',
    };
    if (!person.active || (await confirm(question))) await change({ active: !person.active });
  };
  const sendLink = async (): Promise<void> => {
    const question = {
      title: `A new password for ${person.name}?`,
      text: `A link goes to ${person.email}, by which they choose one. The link that was sent before no longer works.`,
      go: 'Send the link',
    };
    if (!(await confirm(question))) return;
    tellOf(await send(liveSendPersonLink, at), 'A link to choose a password is on its way to them.');
  };
  const tellOf = (answer: Reply<unknown>, done: string): void => setTold(answer.ok ? done : answer.detail);
  return (
    <Window
      title={person.name}
      onOpenChange={() => setTold('')}
      trigger={
        <button type="button" className="button" aria-label={`Change ${person.name}`}>
          Change
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
                aria-label={`Take ${one.name} away`}
                onClick={() => void take(one)}
              >
                Take away
              </button>
            ) : (
              <span className="text-quiet">not yours to take</span>
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
          {person.active ? 'Switch off' : 'Switch on'}
        </button>
        <button type="button" className="button" disabled={!person.link} onClick={() => void sendLink()}>
          New password …
        </button>
        <button
          type="button"
          className="button"
          disabled={!person.link}
          onClick={() =>
            void send(liveLiftPersonWaits, at).then((answer) =>
              tellOf(answer, 'They need not wait any more to sign in.'),
            )
          }
        >
          Lift the wait after wrong tries
        </button>
      </div>
      {!person.link && (
        <p className="mt-2 text-quiet">
          This person holds more than you may hand out, so their account is not yours to change.
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
const periodOf = ({ from, until }: Given, day: (moment: string) => string): string =>
  `${from ? `, from ${day(from)}` : ''}${until ? `, until ${day(until)}` : ''}`;

/** An assignment as it is given and taken. */
const plainOf = ({ role, unit, from, until }: Given) => ({
  role,
  ...(unit !== undefined && { unit }),
  ...(from !== undefined && { from }),
  ...(until !== undefined && { until }),
});
