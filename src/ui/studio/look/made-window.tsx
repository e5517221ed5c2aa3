'use client';

import { useState, type FormEvent } from 'react';
import { attributesOf } from '@/core/condition/type';
import type { Assignment, MadeViewer } from '@/core/access/viewer';
import type { Definition } from '@/core/model/definition';
import { unitsOf } from '@/core/model/units';
import type { Value, Values } from '@/core/model/value';
import { send } from '../../live/host';
import { Window } from '../../parts/window';
import { ValueInput } from './value-input';

/** Puts a viewer together: any mix of roles with units and periods, groups and attributes. It can be kept. */
export function MadeWindow({
  api,
  definition,
  mayKeep,
  onClose,
  onMade,
}: {
  api: string;
  definition: Definition;
  mayKeep: boolean;
  onClose: () => void;
  /** `kept` where it was kept under a name. */
  onMade: (key: string, kept: boolean) => void;
}) {
  const [assignments, setAssignments] = useState<readonly Assignment[]>([]);
  const [groups, setGroups] = useState<readonly string[]>([]);
  const [attributes, setAttributes] = useState<Record<string, Value | null>>({});
  const [name, setName] = useState('');
  const [problem, setProblem] = useState('');
  const change = (n: number, to: Assignment | undefined): void =>
    setAssignments((now) => (to ? now.with(n, to) : now.toSpliced(n, 1)));
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const known: Values = Object.fromEntries(
      Object.entries(attributes).filter(([, value]) => value !== null),
    );
    const viewer: MadeViewer = { assignments, attributes: known, ...(groups.length > 0 && { groups }) };
    if (name.trim() === '') return onMade(`made:${JSON.stringify(viewer)}`, false);
    const answer = await send<{ id: string }>('POST', `${api}/viewers`, { name: name.trim(), viewer });
    if (answer.ok) onMade(`kept:${answer.value.id}`, true);
    else setProblem(answer.detail);
  };
  return (
    <Window title="A made-up viewer" open onOpenChange={(open) => !open && onClose()}>
      <form onSubmit={(event) => void submit(event)} className="grid grid-cols-[minmax(0,1fr)] gap-3">
        <fieldset className="min-w-0">
          <legend className="font-semibold">Roles</legend>
          {assignments.map((one, n) => (
            <div key={n} className="mt-1 grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] gap-2">
              <select
                aria-label="Role"
                className="field-box"
                value={one.role}
                onChange={(event) => change(n, { ...one, role: event.target.value })}
              >
                {definition.roles.map((role) => (
                  <option key={role.id} value={role.id}>
                    {role.name}
                  </option>
                ))}
              </select>
              <select
                aria-label="Where"
                className="field-box"
                value={one.unit ?? ''}
                onChange={(event) => change(n, { ...one, unit: event.target.value || undefined })}
              >
                <option value="">everywhere</option>
                {unitsOf(definition).map((unit) => (
                  <option key={unit.id} value={unit.id}>
                    in {unit.name}
                  </option>
                ))}
              </select>
              <button type="button" className="link whitespace-nowrap" onClick={() => change(n, undefined)}>
                Take away
              </button>
              <Day label="From" value={one.from} onChange={(from) => change(n, { ...one, from })} />
              <Day label="Until" value={one.until} onChange={(until) => change(n, { ...one, until })} />
            </div>
          ))}
          <button
            type="button"
            className="link"
            disabled={definition.roles.length === 0}
            onClick={() => setAssignments((now) => [...now, { role: definition.roles[0]?.id ?? '' }])}
          >
            Add a role
          </button>
        </fieldset>
        {definition.groups.length > 0 && (
          <fieldset className="min-w-0">
            <legend className="font-semibold">Groups, whatever their conditions say</legend>
            {definition.groups.map(({ id, name: group }) => (
              <label key={id} className="flex min-h-[24px] items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-open"
                  checked={groups.includes(id)}
                  onChange={(event) =>
                    setGroups((now) =>
                      event.target.checked ? [...now, id] : now.filter((one) => one !== id),
                    )
                  }
                />
                {group}
              </label>
            ))}
          </fieldset>
        )}
        <fieldset className="grid min-w-0 grid-cols-2 gap-2">
          <legend className="font-semibold">What is known of them</legend>
          {attributesOf(definition).map((one) => (
            <label key={one.id}>
              <span className="text-quiet">{one.name}</span>
              <ValueInput
                definition={definition}
                type={one.type}
                value={attributes[one.id] ?? null}
                onChange={(value) => setAttributes((now) => ({ ...now, [one.id]: value }))}
              />
            </label>
          ))}
        </fieldset>
        {mayKeep && (
          <label>
            <span className="text-quiet">Name, to keep this viewer for all builders (may stay empty)</span>
            <input
              className="field-box"
              value={name}
              onChange={(event) => setName(event.target.value)}
              maxLength={80}
            />
          </label>
        )}
        {problem && <p role="alert">{problem}</p>}
        <button type="submit" className="button button-main justify-self-start">
          {name.trim() ? 'Keep, and look as them' : 'Look as them'}
        </button>
      </form>
    </Window>
  );
}

function Day({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string | undefined;
  onChange: (value: string | undefined) => void;
}) {
  return (
    <label className="flex min-w-0 items-center gap-1.5 text-quiet">
      {label}
      <input
        type="date"
        className="field-box"
        value={value?.slice(0, 10) ?? ''}
        onChange={(event) => onChange(event.target.value ? `${event.target.value}T00:00:00Z` : undefined)}
      />
    </label>
  );
}
