'use client';

import '../../parts/nonce';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { unitsOf, type Value, type ValueType } from '@/core/model';
import { send } from '@/ui/client/send';
import { changePerson, liftPersonWaits, sendPersonLink } from '@/contract/studio/people';
import type { PersonChange } from '@/contract/people-input';
import { usePeopleWork } from './use-people-work';
import type { PersonRow } from '@/contract/studio/people';
import { KeptText } from './parts';
import { Assignments } from './person-assignments';
import { Inspector } from './person-inspector';

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
        ? 'A link to choose a password is on its way to them. It stands in the outbox.'
        : answer.detail,
    );
  };
  const lift = async (): Promise<void> => {
    const answer = await send(liftPersonWaits, at);
    setTold(answer.ok ? 'They need not wait any more to sign in.' : answer.detail);
  };
  const screens = definition.areas
    .flatMap((area) => area.screens)
    .filter((one) => one.binds?.record !== 'existing');
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-lead/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-10 left-1/2 z-40 max-h-[calc(100vh-5rem)] w-[64rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 overflow-auto border-t-4 border-ink bg-paper p-5 shadow-lg"
        >
          <Dialog.Title className="mb-3 text-[17px] font-semibold">
            {person.name}
            {!person.active && <span className="font-normal text-quiet"> (switched off)</span>}
            {!person.confirmed && (
              <span className="font-normal text-quiet"> (nobody yet: has not opened the link)</span>
            )}
          </Dialog.Title>
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
                <select
                  aria-label="Home unit"
                  className="field-box"
                  disabled={!mayManage}
                  value={String(person.attributes['home_unit'] ?? '')}
                  onChange={(event) => void change({ homeUnit: event.target.value || null })}
                >
                  <option value=""></option>
                  {unitsOf(definition).map((unit) => (
                    <option key={unit.id} value={unit.id}>
                      {unit.name}
                    </option>
                  ))}
                </select>
              </Labelled>
              {definition.attributes.map((one) => (
                <Labelled key={one.id} label={one.name}>
                  <AttributeInput
                    name={one.name}
                    type={one.type}
                    value={person.attributes[one.id] ?? null}
                    disabled={!mayManage}
                    onKeep={(value) => void change({ attributes: { [one.id]: value } })}
                  />
                </Labelled>
              ))}
              <Labelled label="Starts at">
                <select
                  aria-label="Starts at"
                  className="field-box"
                  disabled={!mayManage}
                  value={person.startScreen ?? ''}
                  onChange={(event) => void change({ startScreen: event.target.value || null })}
                >
                  <option value="">Where their roles say</option>
                  {screens.map((screen) => (
                    <option key={screen.id} value={screen.id}>
                      {screen.name}
                    </option>
                  ))}
                </select>
              </Labelled>
              {mayManage && (
                <div className="mt-1 flex flex-wrap gap-2">
                  <button
                    type="button"
                    className="button"
                    onClick={() => void change({ active: !person.active })}
                  >
                    {person.active ? 'Switch off' : 'Switch on'}
                  </button>
                  <button type="button" className="button" onClick={() => void link()}>
                    Send a link to choose a password
                  </button>
                  <button type="button" className="button" onClick={() => void lift()}>
                    Lift the wait after wrong tries
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
          <Dialog.Close className="button mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
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

function AttributeInput({
  name,
  type,
  value,
  disabled,
  onKeep,
}: {
  name: string;
  type: ValueType;
  value: Value | null;
  disabled: boolean;
  onKeep: (value: Value | null) => void;
}) {
  if (type.kind === 'boolean')
    return (
      <select
        aria-label={name}
        className="field-box"
        disabled={disabled}
        value={value === null ? '' : String(value)}
        onChange={(event) => onKeep(event.target.value === '' ? null : event.target.value === 'true')}
      >
        <option value="">Not known</option>
        <option value="true">Yes</option>
        <option value="false">No</option>
      </select>
    );
  return (
    <KeptText
      label={name}
      mayBeEmpty
      placeholder={type.kind === 'date' ? 'YYYY-MM-DD' : ''}
      value={value === null ? '' : String(value)}
      disabled={disabled}
      onKeep={(text) => onKeep(text === '' ? null : text)}
    />
  );
}
