'use client';

import { useState } from 'react';
import { send } from '@/ui/client/send';
import { join } from '@/contract/studio/builders';
import { FieldMessage } from '../../parts/fields';

interface Props {
  readonly token: string;
  /** To whom the link was made. */
  readonly email: string;
  readonly application: string;
  readonly role: string;
  /** Where one signs in and comes back from. */
  readonly signIn: string;
  /** Who is signed in, if anybody is. */
  readonly as: string | undefined;
}

/** What somebody with an account finds behind the link of an invitation: it takes effect when they say so. */
export function AcceptInvitation({ token, email, application, role, signIn, as }: Props) {
  const [problem, setProblem] = useState('');
  const accept = async (): Promise<void> => {
    const answer = await send(join, { body: { token, password: undefined } });
    if (answer.ok) window.location.assign('/studio');
    else setProblem(answer.detail);
  };
  return (
    <main className="mx-auto mt-24 w-[31rem] border-t-4 border-ink bg-paper p-6">
      <h1 className="mb-3 text-xl font-semibold" dir="auto">
        Join {application} as a builder
      </h1>
      <p className="mb-4">
        {email} has been invited as {role}.{' '}
        {as === undefined ? (
          'There is already an account with this email address, so sign in first. If the account is not yours, ask the person who invited you to use another address.'
        ) : (
          <>
            You are signed in as <strong>{as}</strong>.
          </>
        )}
      </p>
      <FieldMessage text={problem} />
      <span className="flex items-center gap-4">
        {as !== undefined && (
          <button type="button" className="button button-main" onClick={() => void accept()}>
            Accept as {as}
          </button>
        )}
        <a className={as === undefined ? 'button button-main' : 'link'} href={signIn}>
          {as === undefined ? 'Sign in' : 'Sign in with another account'}
        </a>
      </span>
    </main>
  );
}
