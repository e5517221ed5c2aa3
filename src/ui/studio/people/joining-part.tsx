'use client';

import { useState } from 'react';
import { privilegesInLists } from '@/core/model';
import { send } from '../../live/host';
import { useAsked } from '../../parts/queries';
import { usePeopleWork } from './context';
import { KeptText, Panel, PartHead } from './parts';

/** How people come in, where they start, who may unlock for others, and who may look as others. */
export function JoiningPart() {
  const { definition, mayChange, mayManage, apply } = usePeopleWork();
  const given = definition.roles.filter((role) => role.givenToNew).map((role) => role.name);
  const joinable = definition.roles.filter((role) => role.joinable).map((role) => role.name);
  const screens = definition.areas
    .flatMap((area) => area.screens)
    .filter((one) => one.binds?.record !== 'existing');
  const inFull = definition.roles.filter((role) => role.standInFull).map((role) => role.name);
  const { unlock, standIn } = definition;
  return (
    <>
      <PartHead title="Joining and starting" about="For the application as a whole." />
      <Panel label="Signing up">
        <label className="flex min-h-[24px] items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-open"
            disabled={!mayChange}
            checked={definition.signUp}
            onChange={(event) =>
              apply({
                do: 'changeSettings',
                from: { signUp: definition.signUp },
                to: { signUp: event.target.checked },
              })
            }
          />
          People may open an account for themselves
        </label>
        <p className="text-quiet">
          Until they open the link that goes to their address they are nobody. New people get{' '}
          {given.join(', ') || 'no role'}; they may join {joinable.join(', ') || 'no role'} by themselves.
        </p>
        <label className="mt-3 block max-w-72">
          <span className="text-quiet">Where people start whose roles name no screen</span>
          <select
            className="field-box"
            disabled={!mayChange}
            value={definition.startScreen ?? ''}
            onChange={(event) =>
              apply({
                do: 'changeSettings',
                from: { startScreen: definition.startScreen ?? null },
                to: { startScreen: event.target.value || null },
              })
            }
          >
            <option value="">The first that is open to them in the menu</option>
            {screens.map((screen) => (
              <option key={screen.id} value={screen.id}>
                {screen.name}
              </option>
            ))}
          </select>
        </label>
      </Panel>
      <div className="mt-4">
        <Panel label="Unlocking for a while">
          <h2 className="mb-1 font-semibold">Unlocking for a while</h2>
          <ByPrivilege
            label="The privilege to unlock"
            none="nobody unlocks"
            what="may open a locked element on somebody else’s screen"
            value={unlock}
            onChange={(to) =>
              apply({ do: 'changeSettings', from: { unlock: unlock ?? null }, to: { unlock: to } })
            }
          />
        </Panel>
      </div>
      <div className="mt-4">
        <Panel label="Standing in">
          <h2 className="mb-1 font-semibold">Standing in</h2>
          <ByPrivilege
            label="The privilege to stand in"
            none="nobody stands in"
            what="may look as another person in the released application"
            value={standIn}
            onChange={(to) =>
              apply({
                do: 'changeSettings',
                from: { standIn: standIn ?? null },
                to: { standIn: to && { changes: false, ...standIn, ...to } },
              })
            }
          />
          {standIn && (
            <label className="mt-1 flex min-h-[24px] items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-open"
                disabled={!mayChange}
                checked={standIn.changes}
                onChange={(event) =>
                  apply({
                    do: 'changeSettings',
                    from: { standIn },
                    to: { standIn: { ...standIn, changes: event.target.checked } },
                  })
                }
              />
              They may change things meanwhile, and not only read
            </label>
          )}
          <p className="mt-1 text-quiet">
            They get the lower of what both get; in full only for people whose every role allows it:{' '}
            {inFull.join(', ') || 'no role does'}. All of it is in the audit trail under both names.
          </p>
        </Panel>
      </div>
      {mayManage && (
        <div className="mt-4">
          <Outbox />
        </div>
      )}
    </>
  );
}

interface PrivilegeAndTime {
  readonly privilege: string;
  readonly minutes: number;
}

/** "Whoever holds … may do this for … minutes." */
function ByPrivilege({
  label,
  none,
  what,
  value,
  onChange,
}: {
  label: string;
  none: string;
  what: string;
  value: PrivilegeAndTime | undefined;
  onChange: (value: PrivilegeAndTime | null) => void;
}) {
  const { definition, mayChange } = usePeopleWork();
  return (
    <label className="flex flex-wrap items-center gap-2">
      Whoever holds
      <select
        aria-label={label}
        className="field-box w-auto"
        disabled={!mayChange}
        value={value?.privilege ?? ''}
        onChange={(event) =>
          onChange(
            event.target.value ? { privilege: event.target.value, minutes: value?.minutes ?? 15 } : null,
          )
        }
      >
        <option value="">no privilege: {none}</option>
        {privilegesInLists(definition).map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      {what}
      {value && (
        <>
          {' for'}
          <KeptText
            label={`Minutes, ${label.toLowerCase()}`}
            className="w-16"
            value={String(value.minutes)}
            disabled={!mayChange}
            onKeep={(text) =>
              onChange({ privilege: value.privilege, minutes: Math.max(1, Math.trunc(Number(text)) || 1) })
            }
          />
          minutes
        </>
      )}
    </label>
  );
}

interface Message {
  readonly id: string;
  readonly hasLink: boolean;
  readonly to: string;
  readonly subject: string;
  readonly body: string;
  readonly at: string;
}

/** What would have been sent by mail. Nothing leaves this machine. */
function Outbox() {
  const { api } = usePeopleWork();
  const messages = useAsked<{ messages: readonly Message[] }>(`${api}/outbox`).data?.messages;
  return (
    <Panel label="Outbox">
      <h2 className="mb-1 font-semibold">Outbox</h2>
      <p className="mb-2 text-quiet">What would have gone out by mail. Here nothing is really sent.</p>
      <ul>
        {messages?.map((one) => (
          <li key={one.id} className="border-b border-sheet py-1.5">
            <p>
              <span className="font-medium">{one.subject}</span>{' '}
              <span className="text-quiet">to {one.to}</span>
            </p>
            <MessageBody message={one} />
          </li>
        ))}
        {messages?.length === 0 && <li className="text-quiet">It is empty.</li>}
      </ul>
    </Panel>
  );
}

/** A message's text. Its link is a key to the account: it is shown when asked for, which is recorded. */
function MessageBody({ message }: { message: Message }) {
  const { api, tell } = usePeopleWork();
  const [link, setLink] = useState<string>();
  const show = async (): Promise<void> => {
    const answer = await send<{ link: string }>('POST', `${api}/outbox/${message.id}/link`);
    if (answer.ok) setLink(answer.value.link);
    else tell(answer.detail);
  };
  const [before, after = ''] = message.body.split('{link}');
  return (
    <p className="break-words">
      {before}
      {link !== undefined ? (
        <a className="link" href={link}>
          {link}
        </a>
      ) : (
        message.hasLink && (
          <button
            type="button"
            className="link min-h-[24px]"
            aria-label={`Show the link in the message to ${message.to}`}
            onClick={() => void show()}
          >
            Show the link (it is recorded)
          </button>
        )
      )}
      {after}
    </p>
  );
}
