'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { send } from '@/ui/client/send';
import { changePassword, endOtherSessions, rename } from '@/contract/studio/account';
import { FieldMessage, TextField } from '../../parts/fields';
import { useTell } from '../../parts/toasts';
import { Form } from '../../parts/form';

interface Account {
  readonly name: string;
  readonly email: string;
  readonly sessions: readonly { readonly since: string; readonly here: boolean }[];
}

/** A builder's own account: their name, their password, and where they are signed in. */
export function AccountForms({ account }: { account: Account }) {
  return (
    <>
      <h1 className="text-xl font-semibold">Your account</h1>
      <p className="mb-5 text-quiet">{account.email}</p>
      <div className="grid max-w-4xl grid-cols-2 gap-8">
        <div className="grid content-start gap-8">
          <NameForm name={account.name} />
          <Sessions sessions={account.sessions} />
        </div>
        <PasswordForm email={account.email} />
      </div>
    </>
  );
}

function NameForm({ name }: { name: string }) {
  const { register, handleSubmit, setError, formState } = useForm({ defaultValues: { name } });
  const router = useRouter();
  const tell = useTell();
  const submit = handleSubmit(async (values) => {
    const answer = await send(rename, { body: values });
    if (!answer.ok) return setError('name', { message: answer.fields['name'] ?? answer.detail });
    tell('Name saved.');
    router.refresh();
  });
  return (
    <Form className="grid gap-2" onSubmit={(event) => void submit(event)}>
      <h2 className="font-semibold">Name</h2>
      <TextField
        label="Name (shown to other people)"
        autoComplete="name"
        problem={formState.errors.name?.message}
        {...register('name')}
      />
      <span>
        <button type="submit" className="button" disabled={formState.isSubmitting}>
          Save name
        </button>
      </span>
    </Form>
  );
}

function PasswordForm({ email }: { email: string }) {
  const { register, handleSubmit, setError, reset, formState } = useForm({
    defaultValues: { now: '', password: '' },
  });
  const [problem, setProblem] = useState('');
  const router = useRouter();
  const tell = useTell();
  const submit = handleSubmit(async (values) => {
    setProblem('');
    const answer = await send(changePassword, { body: values });
    if (answer.ok) {
      reset();
      tell('Password changed. You have been signed out everywhere else.');
      return router.refresh();
    }
    const fields = (['now', 'password'] as const).filter((field) => answer.fields[field]);
    for (const field of fields) setError(field, { message: answer.fields[field] ?? '' });
    if (fields.length === 0) setProblem(answer.detail);
  });
  const { errors } = formState;
  return (
    <Form className="grid content-start gap-2" onSubmit={(event) => void submit(event)}>
      <h2 className="font-semibold">Password</h2>
      <input type="hidden" autoComplete="username" value={email} readOnly />
      <TextField
        label="Current password"
        type="password"
        autoComplete="current-password"
        problem={errors.now?.message}
        {...register('now')}
      />
      <TextField
        label="New password, at least 10 characters"
        type="password"
        autoComplete="new-password"
        problem={errors.password?.message}
        {...register('password')}
      />
      <FieldMessage text={problem} />
      <span>
        <button type="submit" className="button" disabled={formState.isSubmitting}>
          Change password
        </button>
      </span>
    </Form>
  );
}

function Sessions({ sessions }: Pick<Account, 'sessions'>) {
  const router = useRouter();
  const tell = useTell();
  const end = async (): Promise<void> => {
    const answer = await send(endOtherSessions, {});
    tell(answer.ok ? 'You have been signed out everywhere else.' : answer.detail);
    router.refresh();
  };
  return (
    <section aria-label="Sessions">
      <h2 className="mb-1 font-semibold">Where you are signed in</h2>
      <ul className="mb-2">
        {sessions.map(({ since, here }) => (
          <li key={since} className="border-b border-sheet py-1">
            <time dateTime={since} suppressHydrationWarning>
              Signed in {new Date(since).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
            </time>
            {here && <span className="text-quiet">(this session)</span>}
          </li>
        ))}
      </ul>
      <button type="button" className="button" disabled={sessions.length < 2} onClick={() => void end()}>
        Sign out everywhere else
      </button>
    </section>
  );
}
