'use client';

import { type Definition, findDanglingReferences, newId, type Role } from '@/core/model';
import { useMemo, useState } from 'react';
import { usePeopleWork } from './use-people-work';
import { Panel, PartHead } from './parts';
import { RolePicture } from './role-picture';
import { RoleDetails } from './role-details';

/** Roles: what they are called, what they include, hold and hand out, and what they reach. */
export function RolesPart() {
  const { definition, apply } = usePeopleWork();
  const [chosen, setChosen] = useState(definition.roles[0]?.id);
  const role = definition.roles.find((one) => one.id === chosen) ?? definition.roles[0];
  const gone = useMemo(() => findDanglingReferences(definition), [definition]);
  const add = (): void => {
    const item: Role = { id: newId(), name: newName(definition), includes: [], privileges: [] };
    apply({ do: 'addItem', list: 'roles', at: definition.roles.length, item });
    setChosen(item.id);
  };
  return (
    <>
      <PartHead
        title="Roles"
        about="A role that includes another role gives everything that role gives."
        add={{ name: 'Add role', run: add }}
      />
      {gone.length > 0 && (
        <ul
          aria-label="Deleted roles still in use"
          className="mb-4 border-l-4 border-amber bg-amber-soft px-3 py-2"
        >
          {gone.map((one, n) => (
            <li key={n}>
              {one.place}: {one.message} {one.mend}
            </li>
          ))}
        </ul>
      )}
      <Panel label="Role inclusion diagram">
        <RolePicture roles={definition.roles} chosen={role?.id} onChoose={setChosen} />
      </Panel>
      {role && (
        <div className="mt-4">
          <RoleDetails key={role.id} role={role} />
        </div>
      )}
    </>
  );
}

function newName({ roles }: Definition): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? 'New role' : `New role ${n}`;
    if (!roles.some((role) => role.name === name)) return name;
  }
}
