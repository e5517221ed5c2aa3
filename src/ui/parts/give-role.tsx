'use client';

import type { ChangeEvent } from 'react';
import { Controller, FormProvider, useForm, useFormContext, useWatch } from 'react-hook-form';
import { readMoment } from '@/core/condition';
import { isDate } from '@/core/model';
import type { RoleOffer } from '@/contract/live';
import { DayBox } from './day-box';
import { Select } from './select';

/** A role as it is given: where and for how long. */
export interface GivenRole {
  readonly role: string;
  readonly unit?: string;
  readonly from?: string;
  readonly until?: string;
}

/** What the fields of a role to give hold; empty texts where nothing was chosen. */
export interface RoleChoice {
  readonly role: string;
  readonly unit: string;
  readonly from: string;
  readonly until: string;
}

/** Where a role is given at first: everywhere, if that may be. */
const firstUnit = (role: RoleOffer | undefined): string =>
  !role || role.everywhere ? '' : (role.units[0]?.id ?? '');

/** The fields as they are at first, with this role chosen. */
export const choiceOf = (role: RoleOffer | undefined): RoleChoice => ({
  role: role?.id ?? '',
  unit: firstUnit(role),
  from: '',
  until: '',
});

/** The role that was chosen, as it is given; undefined where none is. Days begin in the application's time zone. */
export function givenRole({ role, unit, ...period }: RoleChoice, timeZone: string): GivenRole | undefined {
  if (!role) return undefined;
  const [from, until] = [readMoment(period.from, timeZone), readMoment(period.until, timeZone)];
  return {
    role,
    ...(unit && { unit }),
    ...(from !== undefined && { from }),
    ...(until !== undefined && { until }),
  };
}

interface FieldsProps {
  readonly roles: readonly RoleOffer[];
  /** The application's: days are written in it. */
  readonly language: string;
  /** None may be chosen, and is at first. */
  readonly optional?: boolean;
  /** All in one row. */
  readonly wide?: boolean;
}

/**
 * The fields of a role to give, in a form that holds a `RoleChoice`: which, where, from when and until when. Nothing is
 * given before a button is pressed.
 */
export function RoleFields({ roles, language, optional = false, wide = false }: FieldsProps) {
  const { register, setValue } = useFormContext<RoleChoice>();
  const id = useWatch<RoleChoice, 'role'>({ name: 'role' });
  const role = roles.find((one) => one.id === id);
  return (
    <div className={`grid gap-2 ${wide ? 'grid-cols-[1.2fr_1fr_9rem_9rem]' : 'grid-cols-2'}`}>
      <label>
        <span className="block text-quiet">Role</span>
        <Select
          aria-label="Role to assign"
          {...register('role', {
            onChange: (event: ChangeEvent<HTMLSelectElement>) =>
              setValue('unit', firstUnit(roles.find((one) => one.id === event.target.value))),
          })}
          none={optional ? 'None yet' : undefined}
          options={roles}
        />
      </label>
      <label>
        <span className="block text-quiet">in unit</span>
        <Select
          key={id}
          aria-label="Unit"
          disabled={!role}
          {...register('unit')}
          none={(role?.everywhere ?? true) ? 'all units' : undefined}
          options={role?.units ?? []}
        />
      </label>
      {(['from', 'until'] as const).map((end) => (
        <div key={end}>
          <span className="block text-quiet">{end}</span>
          <Controller<RoleChoice, typeof end>
            name={end}
            rules={{ validate: (day) => day === '' || isDate(day) }}
            render={({ field: { value, onChange, onBlur, ref } }) => (
              <DayBox
                aria-label={end}
                language={language}
                value={value}
                onChange={onChange}
                onBlur={onBlur}
                inputRef={ref}
                disabled={!role}
              />
            )}
          />
        </div>
      ))}
    </div>
  );
}

/** Gives one role, by a choice and a button. */
export function GiveRole({
  roles,
  language,
  timeZone,
  wide = false,
  onGive,
}: {
  roles: readonly RoleOffer[];
  language: string;
  /** The application's: days begin in it. */
  timeZone: string;
  wide?: boolean;
  onGive: (given: GivenRole) => void;
}) {
  const form = useForm<RoleChoice>({ defaultValues: choiceOf(roles[0]) });
  const submit = form.handleSubmit((choice) => {
    const given = givenRole(choice, timeZone);
    if (given) onGive(given);
  });
  if (roles.length === 0) return <p className="text-quiet">There are no roles that you may assign.</p>;
  return (
    <FormProvider {...form}>
      <form onSubmit={(event) => void submit(event)} className="mt-3 grid gap-2 border-t border-rule pt-2">
        <h3 className="font-medium">Assign a role</h3>
        <RoleFields roles={roles} language={language} wide={wide} />
        <button type="submit" className="button justify-self-start">
          Assign
        </button>
      </form>
    </FormProvider>
  );
}
