'use client';

import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { send } from '@/ui/client/send';
import { liveSignIn } from '@/contract/live';
import { signIn } from '@/contract/studio/account';
import { FieldMessage, TextField } from './fields';
import { Form } from './form';

interface Props {
  /** The application to sign in to; the studio, where there is none. */
  readonly app?: string;
  readonly heading: string;
  readonly back: string | undefined;
  /** Where an account can be asked for, if it can be. */
  readonly signUp?: string | undefined;
  /** Shown only where the demo was seeded. */
  readonly demo:
    { readonly password: string; readonly accounts: readonly (readonly [string, string])[] } | undefined;
}

/** From so many wrong tries in their name on, people are told of it. */
const TELLING = 5;

/** The form to sign in, for the studio and for released applications. It carries nothing of what is behind it. */
export function SignInForm({ app, heading, back, signUp, demo }: Props) {
  const { register, handleSubmit, setFocus, setValue } = useForm({
    defaultValues: { email: '', password: '' },
  });
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState<{ readonly to: string; readonly failed: number }>();
  const submit = handleSubmit(async (credentials) => {
    setBusy(true);
    setProblem('');
    const body = { ...credentials, back };
    const answer = await (app === undefined ? send(signIn, { body }) : send(liveSignIn, { app, body }));
    // A full load: what was there before signing in does not stay.
    if (answer.ok && answer.value.failed < TELLING) return window.location.assign(answer.value.to);
    if (answer.ok) return setDone(answer.value);
    setBusy(false);
    setProblem(answer.detail);
    setFocus('password');
  });
  if (done)
    return (
      <main className="mx-auto mt-24 w-[31rem] border-t-4 border-ink bg-paper p-6">
        <h1 className="mb-3 text-xl font-semibold">You are signed in</h1>
        <p className="mb-4" role="status">
          Since your last visit, there have been {done.failed} attempts to sign in to your account with a
          wrong password. If this was not you, tell your administrator. Each failed attempt makes the next one
          wait longer.
        </p>
        <a className="button button-main" href={done.to}>
          Continue
        </a>
      </main>
    );
  return (
    <main className="mx-auto mt-24 w-[31rem] border-t-4 border-ink bg-paper p-6">
      <h1 className="mb-4 text-xl font-semibold">{heading}</h1>
      <Form onSubmit={(event) => void submit(event)} className="grid gap-3">
        <TextField
          label="Email address"
          type="email"
          autoComplete="username"
          autoFocus
          {...register('email')}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          {...register('password')}
        />
        <FieldMessage text={problem} />
        <span className="flex items-center gap-4">
          <button type="submit" className="button button-main" disabled={busy}>
            Sign in
          </button>
          {signUp !== undefined && (
            <a className="link" href={signUp}>
              Sign up
            </a>
          )}
        </span>
      </Form>
      {demo && (
        <div className="mt-5 border-t border-rule pt-3 text-quiet">
          <p>
            This is the demo. Every account has the password{' '}
            <code className="font-mono whitespace-nowrap text-ink">{demo.password}</code>
          </p>
          <ul className="mt-2 grid gap-0.5">
            {demo.accounts.map(([email, who]) => (
              <li key={email} className="grid grid-cols-[9.5rem_1fr] items-center">
                <span>{who}</span>
                <button
                  type="button"
                  className="link min-h-[24px] text-left"
                  onClick={() => {
                    setValue('email', email);
                    setValue('password', demo.password);
                  }}
                >
                  {email}
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </main>
  );
}
