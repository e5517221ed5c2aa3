'use client';

import { useState } from 'react';
import { idInKey } from '@/core/access';
import { copyGate, copyRole, type Edit, fullName } from '@/core/edit';
import type { AppElement } from '@/core/model';
import { Window } from '../../parts/window';
import { useBench, type RailViewer } from '../frame/bench';
import { EffectDialog } from './effect-dialog';
import { Select } from '@/ui/parts/select';

/** Two places in the grid: what is copied, and to where. */
export interface CopyFrom {
  readonly elements: readonly [AppElement | undefined, AppElement | undefined];
  readonly viewers: readonly [RailViewer | undefined, RailViewer | undefined];
  /** The elements that the grid shows now. */
  readonly rows: readonly string[];
}

/** Copies what one role has to another, "like Volunteer, but …", or one element's lines to another. */
export function CopyWindow({
  from,
  columns,
  onClose,
}: {
  from: CopyFrom;
  columns: readonly RailViewer[];
  onClose: () => void;
}) {
  const { definition } = useBench();
  const roles = columns.filter((one) => one.group === 'role');
  const roleOf = (one: RailViewer | undefined): string =>
    idInKey('role', one?.key ?? '') ?? idInKey('role', roles[0]?.key ?? '') ?? '';
  const [roleFrom, setRoleFrom] = useState(roleOf(from.viewers[0]));
  const [roleTo, setRoleTo] = useState(roleOf(from.viewers[1]));
  const [asked, setAsked] = useState<{ readonly edit: Edit; readonly title: string }>();
  const [problem, setProblem] = useState('');
  const nameOf = (id: string): string => definition.roles.find((one) => one.id === id)?.name ?? id;
  const [one, other] = from.elements;
  const ask = (edit: Edit | undefined, title: string): void => {
    if (edit) setAsked({ edit, title });
    else setProblem('Nothing would change.');
  };
  const choose = (value: string, set: (id: string) => void, label: string) => (
    <Select
      aria-label={label}
      value={value}
      onChoose={set}
      options={roles.map((role) => ({ id: idInKey('role', role.key) ?? '', name: role.name }))}
    />
  );
  if (asked) return <EffectDialog title={asked.title} edit={asked.edit} note="" onClose={onClose} />;
  return (
    <Window title="Copy access" open onOpenChange={(open) => !open && onClose()}>
      <section className="grid gap-2">
        <h3 className="font-semibold">From one role to another</h3>
        <div className="grid grid-cols-[1fr_auto_1fr] items-center gap-2">
          {choose(roleTo, setRoleTo, 'Role to change')}
          gets the same access as {choose(roleFrom, setRoleFrom, 'Role to copy from')}
        </div>
        <p className="text-quiet">
          This applies to the {from.rows.length} rows now shown in the grid. The role keeps the access it has
          through included roles.
        </p>
        <button
          type="button"
          className="button justify-self-start"
          disabled={roleFrom === roleTo}
          onClick={() =>
            ask(
              copyRole(definition, roleFrom, roleTo, from.rows),
              `Copy access of ${nameOf(roleFrom)} to ${nameOf(roleTo)}`,
            )
          }
        >
          Copy role access…
        </button>
      </section>
      {one && other && one.id !== other.id && (
        <section className="mt-4 grid gap-2 border-t border-rule pt-3">
          <h3 className="font-semibold">From one element to another</h3>
          <p>
            The lines of {fullName(one)} are copied to {fullName(other)}.
          </p>
          <button
            type="button"
            className="button justify-self-start"
            onClick={() =>
              ask(copyGate(definition, one.id, other.id), `Copy lines of ${one.name} to ${other.name}`)
            }
          >
            Copy element lines…
          </button>
        </section>
      )}
      {problem && (
        <p role="alert" className="mt-3">
          {problem}
        </p>
      )}
    </Window>
  );
}
