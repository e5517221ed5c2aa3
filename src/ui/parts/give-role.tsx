'use client';

import { useState, type FormEvent } from 'react';
import { readMoment } from '@/core/condition';
import { textIn } from './form-text';

/** A role that may be handed out, and where: everywhere, or in these units. */
export interface RoleOffer {
  readonly id: string;
  readonly name: string;
  readonly everywhere: boolean;
  readonly units: readonly { readonly id: string; readonly name: string }[];
}

/** A role as it is given: where and for how long. */
export interface GivenRole {
  readonly role: string;
  readonly unit?: string;
  readonly from?: string;
  readonly until?: string;
}

/** What the fields of a role to give hold; undefined where no role is chosen. */
export function givenRole(form: FormData, timeZone: string): GivenRole | undefined {
  const text = (name: string): string => textIn(form, name);
  const [from, until] = [readMoment(text('from'), timeZone), readMoment(text('until'), timeZone)];
  if (!text('role')) return undefined;
  return {
    role: text('role'),
    ...(text('unit') && { unit: text('unit') }),
    ...(from !== undefined && { from }),
    ...(until !== undefined && { until }),
  };
}

interface FieldsProps {
  readonly roles: readonly RoleOffer[];
  /** None may be chosen, and is at first. */
  readonly optional?: boolean;
  /** All in one row. */
  readonly wide?: boolean;
}

/** The fields of a role to give: which, where, from when and until when. Nothing is given before a button is pressed. */
export function RoleFields({ roles, optional = false, wide = false }: FieldsProps) {
  const [id, setId] = useState(optional ? '' : (roles[0]?.id ?? ''));
  const role = roles.find((one) => one.id === id);
  return (
    <div className={`grid gap-2 ${wide ? 'grid-cols-[1.2fr_1fr_9rem_9rem]' : 'grid-cols-2'}`}>
      <label>
        <span className="block text-quiet">Role</span>
        <select
          name="role"
          aria-label="Role to give"
          className="field-box"
          value={id}
          onChange={(event) => setId(event.target.value)}
        >
          {optional && <option value="">None yet</option>}
          {roles.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <label>
        <span className="block text-quiet">in</span>
        <select key={id} name="unit" aria-label="In which unit" className="field-box" disabled={!role}>
          {(role?.everywhere ?? true) && <option value="">all units</option>}
          {role?.units.map((unit) => (
            <option key={unit.id} value={unit.id}>
              {unit.name}
            </option>
          ))}
        </select>
      </label>
      <label>
        <span className="block text-quiet">from</span>
        <input name="from" type="date" className="field-box" disabled={!role} />
      </label>
      <label>
        <span className="block text-quiet">until</span>
        <input name="until" type="date" className="field-box" disabled={!role} />
      </label>
    </div>
  );
}

/** Gives one role, by a choice and a button. */
export function GiveRole({
  roles,
  timeZone,
  wide = false,
  onGive,
}: {
  roles: readonly RoleOffer[];
  /** The application's: days begin in it. */
  timeZone: string;
  wide?: boolean;
  onGive: (given: GivenRole) => void;
}) {
  if (roles.length === 0) return <p className="text-quiet">There is no role that you may hand out.</p>;
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const given = givenRole(new FormData(event.currentTarget), timeZone);
    if (given) onGive(given);
  };
  return (
    <form onSubmit={submit} className="mt-3 grid gap-2 border-t border-rule pt-2">
      <h3 className="font-medium">Give a role</h3>
      <RoleFields roles={roles} wide={wide} />
      <button type="submit" className="button justify-self-start">
        Give
      </button>
    </form>
  );
}
