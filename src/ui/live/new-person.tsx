'use client';

import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { FormProvider, useForm } from 'react-hook-form';
import * as yup from 'yup';
import { ACCOUNT_FIELDS, isDate } from '@/core/model';
import type { PersonInput } from '@/contract/people-input';
import type { Reply } from '@/ui/client/send';
import type { RoleOffer } from '@/contract/live';
import { FieldMessage, TextField } from '../parts/fields';
import { choiceOf, givenRole, RoleFields, type RoleChoice } from '../parts/give-role';
import { Window } from '../parts/window';

interface Props {
  /** Asks the server to make one. */
  readonly add: (person: PersonInput) => Promise<Reply<unknown>>;
  /** The roles that can be given at once, where there is a choice. */
  readonly roles?: readonly RoleOffer[];
  /** In which days of a period are written, and meant. */
  readonly language?: string;
  readonly timeZone?: string;
  readonly main?: boolean;
  readonly onDone: () => Promise<void>;
}

interface Written extends RoleChoice {
  readonly name: string;
  readonly email: string;
}

const NOTHING: Written = { name: '', email: '', ...choiceOf(undefined) };

/** A day or none. What is none says so beside its box. */
const someDay = yup
  .string()
  .default('')
  .test('day', 'This is not a valid date.', (day) => day === '' || isDate(day));

const SCHEMA = yup.object({
  name: ACCOUNT_FIELDS.name,
  email: ACCOUNT_FIELDS.email,
  role: yup.string().default(''),
  unit: yup.string().default(''),
  from: someDay,
  until: someDay,
});

/** Makes an account. A link goes to its address, by which whose address it is chooses a password. */
export function NewPerson({ add, roles, language = 'en', timeZone = 'UTC', main = false, onDone }: Props) {
  const [told, setTold] = useState('');
  const form = useForm<Written>({ resolver: yupResolver(SCHEMA), defaultValues: NOTHING });
  const { register, handleSubmit, formState, reset } = form;
  const submit = handleSubmit(async ({ name, email, ...choice }) => {
    setTold('');
    const given = givenRole(choice, timeZone);
    const answer = await add({ name, email, ...(given && { assignments: [given] }) });
    if (!answer.ok) return setTold([answer.detail, ...Object.values(answer.fields)].join(' '));
    setTold(
      'Person added. They have been sent a link to choose a password, and cannot sign in until they open it.',
    );
    await onDone();
  });
  return (
    <Window
      title="Add person…"
      onOpenChange={() => {
        setTold('');
        reset(NOTHING);
      }}
      trigger={
        <button type="button" className={`button ${main ? 'button-main' : ''}`}>
          Add person…
        </button>
      }
    >
      <FormProvider {...form}>
        <form
          noValidate
          className="grid gap-3"
          onSubmit={(event) => {
            // The form of the page around the window is another one.
            event.stopPropagation();
            void submit(event);
          }}
        >
          <TextField label="Name" problem={formState.errors.name?.message} {...register('name')} />
          <TextField
            label="Email address"
            type="email"
            problem={formState.errors.email?.message}
            {...register('email')}
          />
          {roles && <RoleFields roles={roles} language={language} optional />}
          <FieldMessage text={told} />
          <button
            type="submit"
            className="button button-main justify-self-start"
            disabled={formState.isSubmitting}
          >
            Add
          </button>
        </form>
      </FormProvider>
    </Window>
  );
}
