'use client';

import { useState, type FormEvent } from 'react';
import { Window } from '../parts/window';
import { givenRole, RoleFields, type RoleOffer } from '../parts/give-role';
import { send } from './host';

interface Props {
  /** Where people are made. */
  readonly url: string;
  /** The roles that can be given at once, where there is a choice. */
  readonly roles?: readonly RoleOffer[];
  /** In which days of a period are meant. */
  readonly timeZone?: string;
  readonly main?: boolean;
  readonly onDone: () => Promise<void>;
}

/** Makes an account. A link goes to its address, by which whose address it is chooses a password. */
export function NewPerson({ url, roles, timeZone = 'UTC', main = false, onDone }: Props) {
  const [told, setTold] = useState('');
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    event.stopPropagation();
    const form = new FormData(event.currentTarget);
    const given = givenRole(form, timeZone);
    const answer = await send('POST', url, {
      name: form.get('name'),
      email: form.get('email'),
      ...(given && { assignments: [given] }),
    });
    if (!answer.ok) return setTold([answer.detail, ...Object.values(answer.fields)].join(' '));
    setTold('Added. A link to choose a password is on its way to them; until they open it, they are nobody.');
    await onDone();
  };
  return (
    <Window
      title="Add a person"
      onOpenChange={() => setTold('')}
      trigger={
        <button type="button" className={`button ${main ? 'button-main' : ''}`}>
          Add a person
        </button>
      }
    >
      <form onSubmit={(event) => void submit(event)} className="grid gap-3">
        <label>
          <span className="text-quiet">Name</span>
          <input name="name" className="field-box" />
        </label>
        <label>
          <span className="text-quiet">Email address</span>
          <input name="email" type="email" className="field-box" />
        </label>
        {roles && <RoleFields roles={roles} optional />}
        {told && (
          <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
            {told}
          </p>
        )}
        <button type="submit" className="button button-main justify-self-start">
          Add
        </button>
      </form>
    </Window>
  );
}
