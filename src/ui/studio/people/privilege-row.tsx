'use client';

import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import { allWithin } from '@/core/condition';
import { fullName, removePrivilege } from '@/core/edit';
import { type Definition, type Privilege, treeOf, withIncluded } from '@/core/model';
import { asked } from '@/ui/client/queries';
import { peoplePage } from '@/contract/studio/people';
import { usePeopleWork } from './use-people-work';
import { KeptText } from '@/ui/parts/kept-text';

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
    ...(unlock?.privilege === id ? ['temporary unlocking'] : []),
    ...(standIn?.privilege === id ? ['acting as another person'] : []),
  ];
  return {
    holding: [...direct, ...through].map((one) => one.id),
    direct: direct.map((one) => one.name),
    through: through.map((one) => one.name),
    elements: [...elements, ...named, ...uses],
  };
}

export function PrivilegeRow({
  privilege,
  onRename,
}: {
  privilege: Privilege;
  onRename: (name: string) => void;
}) {
  const { definition, mayChange, apply } = usePeopleWork();
  const uses = usesOf(definition, privilege.id);
  const [asks, setAsks] = useState(false);
  const edit = removePrivilege(definition, privilege.id);
  return (
    <li className="border-b border-sheet py-1.5">
      <div className="flex items-center gap-2">
        <KeptText
          label="Privilege name"
          className="max-w-72"
          value={privilege.name}
          disabled={!mayChange}
          onKeep={onRename}
        />
        <span className="min-w-0 grow">
          in roles: {uses.direct.join(', ') || 'no role'}
          {uses.through.length > 0 && (
            <span className="text-quiet"> (also through {uses.through.join(', ')})</span>
          )}
          {uses.elements.length > 0 && <>; used by {uses.elements.join(', ')}</>}
        </span>
        <button type="button" className="link" onClick={() => setAsks(true)}>
          Show people
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
  const { app } = usePeopleWork();
  const names = useQueries({
    queries: roles.map((role) => asked(peoplePage, { app, query: { role } })),
    combine: (answers) => [
      ...new Set(answers.flatMap(({ data }) => data?.people.map((one) => one.name) ?? [])),
    ],
  });
  return <p className="text-quiet">People: {names.sort().join(', ') || 'nobody'}</p>;
}
