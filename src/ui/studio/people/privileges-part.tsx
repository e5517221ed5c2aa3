'use client';

import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import { allWithin } from '@/core/condition';
import { fullName, removePrivilege } from '@/core/edit';
import {
  type Definition,
  newId,
  type Privilege,
  type PrivilegeGroup,
  treeOf,
  withIncluded,
} from '@/core/model';
import { asked } from '../../parts/queries';
import { usePeopleWork } from './context';
import { KeptText, Panel, PartHead } from './parts';

/** Privileges in groups, and what uses each. */
export function PrivilegesPart() {
  const { definition, mayChange, apply } = usePeopleWork();
  const [q, setQ] = useState('');
  const shown = definition.privileges.map((group) => ({
    group,
    privileges: group.privileges.filter((one) =>
      `${group.name} ${one.name}`.toLowerCase().includes(q.toLowerCase()),
    ),
  }));
  return (
    <>
      <PartHead
        title="Privileges"
        about="Named abilities that roles hold. A line can speak of all who hold one."
      >
        <input
          type="search"
          aria-label="Search privileges"
          placeholder="Search"
          className="field-box w-44"
          value={q}
          onChange={(event) => setQ(event.target.value)}
        />
        {mayChange && (
          <button
            type="button"
            className="button"
            onClick={() =>
              apply({
                do: 'addItem',
                list: 'privileges',
                at: definition.privileges.length,
                item: { id: newId(), name: 'New group', privileges: [] },
              })
            }
          >
            Add a group
          </button>
        )}
      </PartHead>
      <div className="grid gap-4">
        {shown
          .filter(({ privileges }) => q === '' || privileges.length > 0)
          .map(({ group, privileges }) => (
            <GroupPanel key={group.id} group={group} privileges={privileges} />
          ))}
      </div>
    </>
  );
}

function GroupPanel({ group, privileges }: { group: PrivilegeGroup; privileges: readonly Privilege[] }) {
  const { mayChange, apply } = usePeopleWork();
  const change = (to: PrivilegeGroup): void =>
    apply({ do: 'changeItem', list: 'privileges', from: group, to });
  return (
    <Panel label={group.name}>
      <div className="mb-2 flex items-center gap-2">
        <KeptText
          label="Name of the group"
          className="max-w-64 font-semibold"
          value={group.name}
          disabled={!mayChange}
          onKeep={(name) => change({ ...group, name })}
        />
        {mayChange && (
          <button
            type="button"
            className="link"
            onClick={() =>
              change({ ...group, privileges: [...group.privileges, { id: newId(), name: 'New privilege' }] })
            }
          >
            Add a privilege
          </button>
        )}
      </div>
      <ul>
        {privileges.map((one) => (
          <PrivilegeRow
            key={one.id}
            privilege={one}
            onRename={(name) =>
              change({
                ...group,
                privileges: group.privileges.map((each) => (each === one ? { ...one, name } : each)),
              })
            }
          />
        ))}
        {privileges.length === 0 && <li className="text-quiet">None yet.</li>}
      </ul>
    </Panel>
  );
}

interface Uses {
  /** All roles that hold it, themselves or through others. */
  readonly holding: readonly string[];
  readonly direct: readonly string[];
  readonly through: readonly string[];
  readonly elements: readonly string[];
}

/** Which roles hold it, themselves or through others, and which elements ask for it. */
function usesOf(definition: Definition, id: string): Uses {
  const tree = treeOf(definition);
  const direct = definition.roles.filter((role) => role.privileges.includes(id));
  const through = definition.roles.filter(
    (role) => !direct.includes(role) && direct.some((one) => withIncluded(definition, [role.id]).has(one.id)),
  );
  const elements = Object.entries(definition.gates)
    .filter(([, { lines }]) =>
      lines.some(
        (line) =>
          (line.who.kind === 'privilege' && line.who.privilege === id) ||
          (line.when && allWithin(line.when).some((one) => 'hasPrivilege' in one && one.hasPrivilege === id)),
      ),
    )
    .flatMap(([element]) => {
      const found = tree.get(element);
      return found ? [fullName(found)] : [];
    });
  const named = [...definition.groups, ...definition.conditions]
    .filter((one) =>
      allWithin(one.condition).some((each) => 'hasPrivilege' in each && each.hasPrivilege === id),
    )
    .map((one) => one.name);
  const { unlock, standIn } = definition;
  const uses = [
    ...(unlock?.privilege === id ? ['unlocking for others'] : []),
    ...(standIn?.privilege === id ? ['standing in'] : []),
  ];
  return {
    holding: [...direct, ...through].map((one) => one.id),
    direct: direct.map((one) => one.name),
    through: through.map((one) => one.name),
    elements: [...elements, ...named, ...uses],
  };
}

function PrivilegeRow({ privilege, onRename }: { privilege: Privilege; onRename: (name: string) => void }) {
  const { definition, mayChange, apply } = usePeopleWork();
  const uses = usesOf(definition, privilege.id);
  const [asks, setAsks] = useState(false);
  const edit = removePrivilege(definition, privilege.id);
  return (
    <li className="border-b border-sheet py-1.5">
      <div className="flex items-center gap-2">
        <KeptText
          label="Name of the privilege"
          className="max-w-72"
          value={privilege.name}
          disabled={!mayChange}
          onKeep={onRename}
        />
        <span className="min-w-0 grow">
          held by {uses.direct.join(', ') || 'no role'}
          {uses.through.length > 0 && (
            <span className="text-quiet"> (and through them {uses.through.join(', ')})</span>
          )}
          {uses.elements.length > 0 && <>; asked for by {uses.elements.join(', ')}</>}
        </span>
        <button type="button" className="link" onClick={() => setAsks(true)}>
          Who?
        </button>
        {mayChange && edit && (
          <button
            type="button"
            className="link"
            aria-label={`Delete ${privilege.name}`}
            disabled={[definition.unlock, definition.standIn].some((one) => one?.privilege === privilege.id)}
            onClick={() => apply(edit)}
          >
            Delete
          </button>
        )}
      </div>
      {asks && <Holders roles={uses.holding} />}
    </li>
  );
}

/** Who was given one of the roles, by name. */
function Holders({ roles }: { roles: readonly string[] }) {
  const { api } = usePeopleWork();
  const names = useQueries({
    queries: roles.map((role) =>
      asked<{ people: readonly { name: string }[] }>(`${api}/people?role=${role}`),
    ),
    combine: (answers) => [
      ...new Set(answers.flatMap(({ data }) => data?.people.map((one) => one.name) ?? [])),
    ],
  });
  return <p className="text-quiet">People: {names.sort().join(', ') || 'nobody'}</p>;
}
