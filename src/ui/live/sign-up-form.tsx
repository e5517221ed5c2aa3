'use client';

import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import * as yup from 'yup';
import { ACCOUNT_FIELDS } from '@/core/model';
import { send } from '@/ui/client/send';
import { signUp } from '@/contract/live';
import { FieldMessage, TextField } from '../parts/fields';
import { Form } from '../parts/form';

const FIELDS = [
  ['name', 'Name', 'text', 'name'],
  ['email', 'Email address', 'email', 'email'],
] as const;

const SCHEMA = yup.object({ name: ACCOUNT_FIELDS.name, email: ACCOUNT_FIELDS.email });

/** The form to ask for an account. What it answers is the same whether the address has one already. */
export function SignUpForm({ app }: { app: string }) {
  const { register, handleSubmit, setError, formState } = useForm({
    resolver: yupResolver(SCHEMA),
    defaultValues: { name: '', email: '' },
  });
  const [problem, setProblem] = useState('');
  const [sent, setSent] = useState(false);
  const submit = handleSubmit(async (input) => {
    setProblem('');
    const answer = await send(signUp, { app, body: input });
    if (answer.ok) return setSent(true);
    for (const [field] of FIELDS) {
      const message = answer.fields[field];
      if (message) setError(field, { message });
    }
    if (Object.keys(answer.fields).length === 0) setProblem(answer.detail);
  });
  return (
    <main className="mx-auto mt-24 w-[31rem] border-t-4 border-ink bg-paper p-6">
      <h1 className="mb-4 text-xl font-semibold">{sent ? 'Check your email' : 'Sign up'}</h1>
      {sent ? (
        <p role="status">
          We have sent you an email. Open the link in it within 24 hours and choose a password. Then you can
          sign in.
        </p>
      ) : (
        <Form onSubmit={(event) => void submit(event)} className="grid gap-3">
          {FIELDS.map(([name, label, type, complete]) => {
            const message = formState.errors[name]?.message;
            return (
              <TextField
                key={name}
                label={label}
                type={type}
                autoComplete={complete}
                problem={message}
                {...register(name)}
              />
            );
          })}
          <FieldMessage text={problem} />
          <span className="flex items-center gap-4">
            <button type="submit" className="button button-main" disabled={formState.isSubmitting}>
              Sign up
            </button>
            <a className="link" href={`/live/${app}/sign-in`}>
              I already have an account
            </a>
          </span>
        </Form>
      )}
    </main>
  );
}
