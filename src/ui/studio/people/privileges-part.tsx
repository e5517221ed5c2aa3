'use client';

import { useState } from 'react';
import { newId, type Privilege, type PrivilegeGroup } from '@/core/model';
import { usePeopleWork } from './use-people-work';
import { Panel, PartHead } from './parts';
import { KeptText } from '@/ui/parts/kept-text';
import { PrivilegeRow } from './privilege-row';

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
        about="A privilege is a named ability that you add to roles. A line can grant access to everyone who has it."
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
            Add group
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
          label="Group name"
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
            Add privilege
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
