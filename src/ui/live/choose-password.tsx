'use client';

import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import * as yup from 'yup';
import { ACCOUNT_FIELDS } from '@/core/model';
import { send } from '@/ui/client/send';
import { choosePassword as setPassword } from '@/contract/live';
import { join } from '@/contract/studio/builders';
import { TextField } from '../parts/fields';
import { Form } from '../parts/form';

const SCHEMA = yup.object({ password: ACCOUNT_FIELDS.password });

interface Props {
  /** The application that the account is of; the studio, where there is none. */
  readonly app?: string;
  /** Where one signs in afterwards. */
  readonly signIn: string;
  readonly token: string;
  readonly email: string;
}

/** The form to choose a password for an account, by the link that was sent to its address. */
export function ChoosePassword({ app, signIn, token, email }: Props) {
  const { register, handleSubmit, setError, formState } = useForm({
    resolver: yupResolver(SCHEMA),
    defaultValues: { password: '' },
  });
  const [done, setDone] = useState(false);
  const submit = handleSubmit(async ({ password }) => {
    const body = { token, password };
    const answer = await (app === undefined ? send(join, { body }) : send(setPassword, { app, body }));
    if (answer.ok) setDone(true);
    else setError('password', { message: answer.fields['password'] ?? answer.detail });
  });
  const message = formState.errors.password?.message;
  return (
    <main className="mx-auto mt-24 w-[31rem] border-t-4 border-ink bg-paper p-6">
      <h1 className="mb-3 text-xl font-semibold">{done ? 'Password saved' : 'Choose a password'}</h1>
      {done ? (
        <>
          <p className="mb-4" role="status">
            You can now sign in as {email}.
          </p>
          <a className="button button-main" href={signIn}>
            Sign in
          </a>
        </>
      ) : (
        <Form onSubmit={(event) => void submit(event)} className="grid gap-3">
          <p>
            This sets the password for <strong>{email}</strong>. If this is not your address, close this page.
          </p>
          <input type="hidden" autoComplete="username" value={email} readOnly />
          <TextField
            label="Password, at least 10 characters"
            type="password"
            autoComplete="new-password"
            autoFocus
            problem={message}
            {...register('password')}
          />
          <span>
            <button type="submit" className="button button-main" disabled={formState.isSubmitting}>
              Set password
            </button>
          </span>
        </Form>
      )}
    </main>
  );
}
