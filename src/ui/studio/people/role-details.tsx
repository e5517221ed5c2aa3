'use client';

import { type Role, withIncluded } from '@/core/model';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { usePeopleWork } from './use-people-work';
import { KeptText, Panel } from './parts';
import { HandsOut } from './role-hands-out';
import { RolePeople, RoleReach } from './role-reach';
import { DeleteRole } from './delete-role';

export function RoleDetails({ role }: { role: Role }) {
  const { definition, mayChange, apply } = usePeopleWork();
  const change = (part: Partial<Role>): void =>
    apply({ do: 'changeItem', list: 'roles', from: role, to: { ...role, ...part } });
  const at = definition.roles.indexOf(role);
  const move = (to: number): void => apply({ do: 'moveItem', list: 'roles', id: role.id, from: at, to });
  const others = definition.roles.filter((one) => one.id !== role.id);
  const screens = definition.areas
    .flatMap((area) => area.screens)
    .filter((one) => one.binds?.record !== 'existing');
  const { startScreen, ...withoutStart } = role;
  return (
    <Panel label={role.name}>
      <div className="flex items-center gap-2">
        <KeptText
          label="Name of the role"
          className="max-w-64 font-semibold"
          value={role.name}
          disabled={!mayChange}
          onKeep={(name) => change({ name })}
        />
        <KeptText
          label="What the role is for"
          placeholder="What it is for"
          value={role.description ?? ''}
          disabled={!mayChange}
          mayBeEmpty
          onKeep={(description) => change({ description })}
        />
        {mayChange && (
          <>
            <button
              type="button"
              className="button px-2"
              aria-label="Earlier in the order"
              disabled={at === 0}
              onClick={() => move(at - 1)}
            >
              <ArrowUp size={14} aria-hidden />
            </button>
            <button
              type="button"
              className="button px-2"
              aria-label="Later in the order"
              disabled={at === definition.roles.length - 1}
              onClick={() => move(at + 1)}
            >
              <ArrowDown size={14} aria-hidden />
            </button>
            <DeleteRole role={role} />
          </>
        )}
      </div>
      <div className="mt-3 grid grid-cols-3 gap-5">
        <Checks
          heading="Includes"
          among={others}
          held={role.includes}
          note={(one) => (withIncluded(definition, [one.id]).has(role.id) ? 'includes this one' : undefined)}
          onChange={(includes) => change({ includes })}
        />
        <Checks
          heading="Holds the privileges"
          among={definition.privileges.flatMap((group) => group.privileges)}
          held={role.privileges}
          onChange={(privileges) => change({ privileges })}
        />
        <div>
          <h3 className="mb-1 font-semibold">How people come to it</h3>
          <RoleSwitch role={role} setting="givenToNew" onChange={change}>
            Given to every new person
          </RoleSwitch>
          <RoleSwitch role={role} setting="joinable" onChange={change}>
            People may join by themselves
          </RoleSwitch>
          <RoleSwitch role={role} setting="setsCompared" onChange={change}>
            Looking after people, they may set what conditions compare
          </RoleSwitch>
          {definition.standIn && (
            <RoleSwitch role={role} setting="standInFull" onChange={change}>
              Who stands in for them gets all that they get
            </RoleSwitch>
          )}
          <label className="mt-2 block">
            <span className="text-quiet">Starts at</span>
            <select
              className="field-box"
              disabled={!mayChange}
              value={startScreen ?? ''}
              onChange={(event) =>
                apply({
                  do: 'changeItem',
                  list: 'roles',
                  from: role,
                  to: event.target.value ? { ...role, startScreen: event.target.value } : withoutStart,
                })
              }
            >
              <option value="">Where the application says</option>
              {screens.map((screen) => (
                <option key={screen.id} value={screen.id}>
                  {screen.name}
                </option>
              ))}
            </select>
          </label>
        </div>
      </div>
      <HandsOut role={role} onChange={(handsOut) => change({ handsOut })} />
      <RolePeople role={role} />
      <RoleReach role={role} />
    </Panel>
  );
}

function Checks({
  heading,
  among,
  held,
  note,
  onChange,
}: {
  heading: string;
  among: readonly { readonly id: string; readonly name: string }[];
  held: readonly string[];
  note?: (one: { readonly id: string; readonly name: string }) => string | undefined;
  onChange: (held: readonly string[]) => void;
}) {
  const { mayChange } = usePeopleWork();
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{heading}</legend>
      {among.length === 0 && <p className="text-quiet">There is none.</p>}
      {among.map((one) => {
        const because = note?.(one);
        return (
          <label key={one.id} className="flex min-h-[24px] items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-open"
              disabled={!mayChange || because !== undefined}
              checked={held.includes(one.id)}
              onChange={(event) =>
                onChange(event.target.checked ? [...held, one.id] : held.filter((id) => id !== one.id))
              }
            />
            {one.name}
            {because && <span className="text-quiet">({because})</span>}
          </label>
        );
      })}
    </fieldset>
  );
}

/** One of the settings of a role that are on or off. */
function RoleSwitch({
  role,
  setting,
  onChange,
  children,
}: {
  role: Role;
  setting: 'givenToNew' | 'joinable' | 'standInFull' | 'setsCompared';
  onChange: (change: Partial<Role>) => void;
  children: string;
}) {
  const { mayChange } = usePeopleWork();
  return (
    <label className="flex min-h-[24px] items-center gap-1.5">
      <input
        type="checkbox"
        className="accent-open"
        disabled={!mayChange}
        checked={role[setting] ?? false}
        onChange={(event) => onChange({ [setting]: event.target.checked })}
      />
      {children}
    </label>
  );
}
