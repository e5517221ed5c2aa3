'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { send } from '@/ui/client/send';
import {
  type BuilderRow,
  builders,
  changeBuilder,
  type Invitation,
  inviteBuilder,
  letBuilderOut,
  sendInvitationAgain,
  takeBackInvitation,
} from '@/contract/studio/builders';
import type { BuilderRole } from '@/contract/builder-roles';
import { FieldMessage, TextField } from '../../parts/fields';
import { asked, useAsked } from '@/ui/client/queries';
import { useConfirm } from '../../parts/asking';
import { useTell } from '../../parts/toasts';
import { Window } from '../../parts/window';
import type { HomeRow } from './home-row';
import { Select } from '@/ui/parts/select';

const ROLES = [
  ['owner', 'Owner: can do everything and manage builders'],
  ['editor', 'Editor: can change the application'],
  ['reviewer', 'Reviewer: can see everything but change nothing'],
] as const;

interface Props {
  readonly row: HomeRow;
  readonly onClose: () => void;
}

/** Who builds an application: its owners let others in, by a link to their address, give them roles, and let them out. */
export function BuildersWindow({ row, onClose }: Props) {
  const app = row.slug;
  const { data, error } = useAsked(builders, { app });
  const client = useQueryClient();
  const tell = useTell();
  const confirm = useConfirm();
  const owns = row.role === 'owner';
  const again = (): Promise<void> =>
    client.invalidateQueries({ queryKey: asked(builders, { app }).queryKey });
  const change = async (id: string, role: BuilderRole): Promise<void> => {
    const answer = await send(changeBuilder, { app, id, body: { role } });
    if (!answer.ok) tell(answer.detail);
    await again();
  };
  const letOut = async ({ id, name }: BuilderRow): Promise<void> => {
    const text = <p>Their past changes are kept. You can invite them again later.</p>;
    if (!(await confirm({ title: `Remove ${name} from ${row.name}?`, text, go: 'Remove builder' }))) return;
    const answer = await send(letBuilderOut, { app, id });
    if (!answer.ok) tell(answer.detail);
    await again();
  };
  const sendAgain = async ({ id, email }: Invitation): Promise<void> => {
    const answer = await send(sendInvitationAgain, { app, id });
    tell(
      answer.ok ? `A new link has been sent to ${email}. The previous link no longer works.` : answer.detail,
    );
  };
  const takeBack = async ({ id }: Invitation): Promise<void> => {
    const answer = await send(takeBackInvitation, { app, id });
    if (!answer.ok) tell(answer.detail);
    await again();
  };
  return (
    <Window title={`Builders of ${row.name}`} open onOpenChange={(open) => !open && onClose()}>
      <FieldMessage text={error?.message ?? ''} />
      <ul className="mb-4 border-t border-rule">
        {data?.builders.map((one) => (
          <li key={one.id} className="border-b border-sheet py-2">
            <div className="flex items-center gap-2">
              <span className="min-w-0 grow">
                <span className="block truncate font-medium" dir="auto">
                  {one.name}
                </span>
                <span className="block truncate text-quiet">{one.email}</span>
              </span>
              <Select
                aria-label={`Role of ${one.name}`}
                className="w-28 shrink-0"
                disabled={!owns}
                value={one.role}
                onChoose={(chosen) => void change(one.id, chosen as BuilderRole)}
                options={ROLES.map(([role]) => ({ id: role, name: role }))}
              />
              {owns && (
                <button
                  type="button"
                  className="link shrink-0"
                  aria-label={`Remove ${one.name}`}
                  onClick={() => void letOut(one)}
                >
                  Remove
                </button>
              )}
            </div>
          </li>
        ))}
        {data?.invited.map((one) => (
          <li key={one.id} className="border-b border-sheet py-2">
            <span className="block truncate font-medium" dir="auto">
              {one.name}
            </span>
            <span className="block truncate text-quiet">
              {one.email}, invited as {one.role} (not accepted yet)
            </span>
            <span className="flex gap-4">
              <button
                type="button"
                className="link"
                aria-label={`Send the link to ${one.name} again`}
                onClick={() => void sendAgain(one)}
              >
                Send the link again
              </button>
              <button
                type="button"
                className="link"
                aria-label={`Withdraw the invitation of ${one.name}`}
                onClick={() => void takeBack(one)}
              >
                Withdraw
              </button>
            </span>
          </li>
        ))}
      </ul>
      {owns && data && data.invited.length > 0 && (
        <p className="mb-4 text-quiet">
          A link goes to their address alone, so that nobody else makes an account of it. It opens for a week,
          and once. Where this server sends no mail, whoever runs it reads the message with{' '}
          <code className="font-mono">bin/zinc outbox</code>.
        </p>
      )}
      {owns && (
        <InviteForm
          app={app}
          onInvited={(email) => {
            tell(`An invitation has been sent to ${email}.`);
            void again();
          }}
        />
      )}
    </Window>
  );
}

interface InviteProps {
  readonly app: string;
  readonly onInvited: (email: string) => void;
}

function InviteForm({ app, onInvited }: InviteProps) {
  const start = { name: '', email: '', role: 'editor' };
  const { register, handleSubmit, setError, reset, formState } = useForm({ defaultValues: start });
  const [problem, setProblem] = useState('');
  const submit = handleSubmit(async (values) => {
    setProblem('');
    const answer = await send(inviteBuilder, { app, body: values });
    if (answer.ok) {
      reset();
      return onInvited(values.email);
    }
    const fields = (['name', 'email'] as const).filter((field) => answer.fields[field]);
    for (const field of fields) setError(field, { message: answer.fields[field] ?? '' });
    if (fields.length === 0) setProblem(answer.detail);
  });
  return (
    <form className="grid gap-2" noValidate onSubmit={(event) => void submit(event)}>
      <h3 className="font-semibold">Invite a builder</h3>
      <TextField
        label="Name"
        autoComplete="off"
        problem={formState.errors.name?.message}
        {...register('name')}
      />
      <TextField
        label="Email address"
        type="email"
        autoComplete="off"
        problem={formState.errors.email?.message}
        {...register('email')}
      />
      <label>
        <span className="text-quiet">Role</span>
        <Select {...register('role')} options={ROLES.map(([role, says]) => ({ id: role, name: says }))} />
      </label>
      <FieldMessage text={problem} />
      <span>
        <button type="submit" className="button button-main" disabled={formState.isSubmitting}>
          Invite
        </button>
      </span>
    </form>
  );
}
