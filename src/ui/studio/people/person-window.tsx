'use client';

import { useState } from 'react';
import { unitsOf } from '@/core/model';
import { send } from '@/ui/client/send';
import { changePerson, liftPersonWaits, sendPersonLink } from '@/contract/studio/people';
import type { PersonChange } from '@/contract/people-input';
import { usePeopleWork } from './use-people-work';
import type { PersonRow } from '@/contract/studio/people';
import { KeptText } from '@/ui/parts/kept-text';
import { Assignments } from './person-assignments';
import { Inspector } from './person-inspector';
import { Select } from '@/ui/parts/select';
import { ValueBox } from '@/ui/parts/value-box';
import { Window } from '@/ui/parts/window';

/** A person: what is known of them, what they hold, and a box to test any of it. */
export function PersonWindow({
  person,
  onDone,
  onClose,
}: {
  person: PersonRow;
  onDone: () => Promise<void>;
  onClose: () => void;
}) {
  const { definition, app, mayManage } = usePeopleWork();
  const [told, setTold] = useState('');
  const at = { app, id: person.id };
  const change = async (body: PersonChange): Promise<void> => {
    const answer = await send(changePerson, { ...at, body });
    setTold(answer.ok ? '' : [answer.detail, ...Object.values(answer.fields)].join(' '));
    await onDone();
  };
  const link = async (): Promise<void> => {
    const answer = await send(sendPersonLink, at);
    setTold(
      answer.ok
        ? 'A link to choose a password has been sent to them. You can also find it in the outbox.'
        : answer.detail,
    );
  };
  const lift = async (): Promise<void> => {
    const answer = await send(liftPersonWaits, at);
    setTold(answer.ok ? 'They can sign in again without waiting.' : answer.detail);
  };
  const screens = definition.areas
    .flatMap((area) => area.screens)
    .filter((one) => one.binds?.record !== 'existing');
  return (
    <Window
      wide
      open
      onOpenChange={(open) => !open && onClose()}
      title={
        <>
          {person.name}
          {!person.active && <span className="font-normal text-quiet"> (account disabled)</span>}
          {!person.confirmed && (
            <span className="font-normal text-quiet"> (not activated: has not opened the link)</span>
          )}
        </>
      }
    >
      <div className="grid grid-cols-[22rem_1fr] gap-6">
        <div className="grid content-start gap-2">
          <Labelled label="Name">
            <KeptText
              label="Name"
              value={person.name}
              disabled={!mayManage}
              onKeep={(name) => void change({ name })}
            />
          </Labelled>
          <Labelled label="Email address">
            <KeptText
              label="Email address"
              value={String(person.attributes['email'] ?? '')}
              disabled={!mayManage}
              onKeep={(email) => void change({ email })}
            />
          </Labelled>
          <Labelled label="Home unit">
            <Select
              aria-label="Home unit"
              disabled={!mayManage}
              value={String(person.attributes['home_unit'] ?? '')}
              onChoose={(chosen) => void change({ homeUnit: chosen || null })}
              none=""
              options={unitsOf(definition)}
            />
          </Labelled>
          {definition.attributes.map((one) => (
            <Labelled key={one.id} label={one.name}>
              <ValueBox
                label={one.name}
                manner={definition}
                none="Not set"
                whenLeft
                type={one.type}
                value={person.attributes[one.id] ?? null}
                disabled={!mayManage}
                onChange={(value) => void change({ attributes: { [one.id]: value } })}
              />
            </Labelled>
          ))}
          <Labelled label="Start screen">
            <Select
              aria-label="Start screen"
              disabled={!mayManage}
              value={person.startScreen ?? ''}
              onChoose={(chosen) => void change({ startScreen: chosen || null })}
              none="As set by their roles"
              options={screens}
            />
          </Labelled>
          {mayManage && (
            <div className="mt-1 flex flex-wrap gap-2">
              <button
                type="button"
                className="button"
                onClick={() => void change({ active: !person.active })}
              >
                {person.active ? 'Disable account' : 'Enable account'}
              </button>
              <button type="button" className="button" onClick={() => void link()}>
                Send password link
              </button>
              <button type="button" className="button" onClick={() => void lift()}>
                Clear the sign-in delay
              </button>
            </div>
          )}
          {told && (
            <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
              {told}
            </p>
          )}
        </div>
        <div>
          <Assignments person={person} onChange={(single) => void change(single)} />
          <Inspector person={person} />
        </div>
      </div>
    </Window>
  );
}

function Labelled({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="grid grid-cols-[7.5rem_1fr] items-center gap-2">
      <span className="text-quiet" aria-hidden>
        {label}
      </span>
      {children}
    </div>
  );
}
