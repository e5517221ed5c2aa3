'use client';

import { useState } from 'react';
import { send } from '@/ui/client/send';
import { join } from '@/contract/studio/builders';
import { Told } from '../../parts/fields';

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
        Build {application}
      </h1>
      <p className="mb-4">
        {email} was let in as {role}.{' '}
        {as === undefined ? (
          'That address has an account here: sign in first. If it is not yours, ask who let you in to use another address.'
        ) : (
          <>
            You are signed in as <strong>{as}</strong>.
          </>
        )}
      </p>
      <Told text={problem} />
      <span className="flex items-center gap-4">
        {as !== undefined && (
          <button type="button" className="button button-main" onClick={() => void accept()}>
            Come in as {as}
          </button>
        )}
        <a className={as === undefined ? 'button button-main' : 'link'} href={signIn}>
          {as === undefined ? 'Sign in' : 'Sign in as somebody else'}
        </a>
      </span>
    </main>
  );
}
