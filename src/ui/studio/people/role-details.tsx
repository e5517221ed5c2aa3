'use client';

import { type Role, withIncluded } from '@/core/model';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { usePeopleWork } from './use-people-work';
import { Panel } from './parts';
import { KeptText } from '@/ui/parts/kept-text';
import { HandsOut } from './role-hands-out';
import { RolePeople, RoleReach } from './role-reach';
import { DeleteRole } from './delete-role';
import { Select } from '@/ui/parts/select';
import { Checkbox } from '@/ui/parts/checkbox';

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
          label="Role name"
          className="max-w-64 font-semibold"
          value={role.name}
          disabled={!mayChange}
          onKeep={(name) => change({ name })}
        />
        <KeptText
          label="Role description"
          placeholder="Description"
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
              aria-label="Move up"
              disabled={at === 0}
              onClick={() => move(at - 1)}
            >
              <ArrowUp size={14} aria-hidden />
            </button>
            <button
              type="button"
              className="button px-2"
              aria-label="Move down"
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
          note={(one) =>
            withIncluded(definition, [one.id]).has(role.id)
              ? 'cannot be included because it includes this role'
              : undefined
          }
          onChange={(includes) => change({ includes })}
        />
        <Checks
          heading="Privileges"
          among={definition.privileges.flatMap((group) => group.privileges)}
          held={role.privileges}
          onChange={(privileges) => change({ privileges })}
        />
        <div>
          <h3 className="mb-1 font-semibold">Assignment</h3>
          <RoleSwitch role={role} setting="givenToNew" onChange={change}>
            Assign to every new person
          </RoleSwitch>
          <RoleSwitch role={role} setting="joinable" onChange={change}>
            People can join this role themselves
          </RoleSwitch>
          <RoleSwitch role={role} setting="setsCompared" onChange={change}>
            People who manage users with this role can change attributes that conditions use
          </RoleSwitch>
          {definition.standIn && (
            <RoleSwitch role={role} setting="standInFull" onChange={change}>
              Anyone acting as these people has their full access
            </RoleSwitch>
          )}
          <label className="mt-2 block">
            <span className="text-quiet">Start screen</span>
            <Select
              disabled={!mayChange}
              value={startScreen ?? ''}
              onChoose={(chosen) =>
                apply({
                  do: 'changeItem',
                  list: 'roles',
                  from: role,
                  to: chosen ? { ...role, startScreen: chosen } : withoutStart,
                })
              }
              none="Application default"
              options={screens}
            />
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
      {among.length === 0 && <p className="text-quiet">No other roles.</p>}
      {among.map((one) => {
        const because = note?.(one);
        return (
          <Checkbox
            key={one.id}
            disabled={!mayChange || because !== undefined}
            checked={held.includes(one.id)}
            onTurn={(on) => onChange(on ? [...held, one.id] : held.filter((id) => id !== one.id))}
          >
            {one.name}
            {because && <span className="text-quiet">({because})</span>}
          </Checkbox>
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
    <Checkbox
      disabled={!mayChange}
      checked={role[setting] ?? false}
      onTurn={(on) => onChange({ [setting]: on })}
    >
      {children}
    </Checkbox>
  );
}
