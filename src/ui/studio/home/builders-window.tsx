'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { send } from '../../live/host';
import { Told, TextField } from '../../parts/fields';
import { asked, useAsked } from '../../parts/queries';
import { useConfirm } from '../../parts/asking';
import { useTell } from '../../parts/toasts';
import { Window } from '../../parts/window';
import type { HomeRow } from './home-row';

interface Builder {
  readonly id: string;
  readonly name: string;
  /** Told to owners. */
  readonly email?: string;
  readonly role: HomeRow['role'];
  /** Have they not chosen a password yet? */
  readonly waiting: boolean;
}

interface Found {
  readonly builders: readonly Builder[];
}

const ROLES = [
  ['owner', 'Owner: all, and who builds it'],
  ['editor', 'Editor: changes it'],
  ['reviewer', 'Reviewer: reads all, changes nothing'],
] as const;

interface Props {
  readonly row: HomeRow;
  readonly onClose: () => void;
}

/** Who builds an application: its owners let others in by a link, give them roles, and let them out. */
export function BuildersWindow({ row, onClose }: Props) {
  const api = `/studio/api/applications/${row.slug}/builders`;
  const { data, error } = useAsked<Found>(api);
  const client = useQueryClient();
  const tell = useTell();
  const confirm = useConfirm();
  const [link, setLink] = useState<{ readonly name: string; readonly href: string }>();
  const owns = row.role === 'owner';
  const again = (): Promise<void> => client.invalidateQueries({ queryKey: asked(api).queryKey });
  const change = async (id: string, role: string): Promise<void> => {
    const answer = await send('PATCH', `${api}/${id}`, { role });
    if (!answer.ok) tell(answer.detail);
    await again();
  };
  const letOut = async ({ id, name }: Builder): Promise<void> => {
    const text = <p>What they did stays. They can be let in again.</p>;
    if (!(await confirm({ title: `Let ${name} out of ${row.name}?`, text, go: 'Let them out' }))) return;
    const answer = await send('DELETE', `${api}/${id}`);
    if (!answer.ok) tell(answer.detail);
    await again();
  };
  const newLink = async ({ id, name }: Builder): Promise<void> => {
    const answer = await send<{ link: string }>('POST', `${api}/${id}/link`);
    if (answer.ok) setLink({ name, href: answer.value.link });
    else tell(answer.detail);
  };
  return (
    <Window title={`Builders of ${row.name}`} open onOpenChange={(open) => !open && onClose()}>
      <Told text={error?.message ?? ''} />
      <ul className="mb-4 border-t border-rule">
        {data?.builders.map((one) => (
          <li key={one.id} className="border-b border-sheet py-2">
            <div className="flex items-center gap-2">
              <span className="min-w-0 grow">
                <span className="block truncate font-medium" dir="auto">
                  {one.name}
                </span>
                <span className="block truncate text-quiet">
                  {one.email}
                  {one.waiting && ' has not opened the link yet'}
                </span>
              </span>
              <select
                aria-label={`What ${one.name} may do`}
                className="field-box w-28 shrink-0"
                disabled={!owns}
                value={one.role}
                onChange={(event) => void change(one.id, event.target.value)}
              >
                {ROLES.map(([role, says]) => (
                  <option key={role} value={role} title={says}>
                    {role}
                  </option>
                ))}
              </select>
              {owns && (
                <button
                  type="button"
                  className="link shrink-0"
                  aria-label={`Let ${one.name} out`}
                  onClick={() => void letOut(one)}
                >
                  Let out
                </button>
              )}
            </div>
            {owns && one.waiting && (
              <button
                type="button"
                className="link"
                aria-label={`New link for ${one.name}`}
                onClick={() => void newLink(one)}
              >
                Make a new link
              </button>
            )}
          </li>
        ))}
      </ul>
      {link && (
        <div role="status" className="mb-4 border-l-4 border-open bg-open-pale px-3 py-2">
          <p>Send {link.name} this link. It can be opened for a week, and once:</p>
          <p className="font-mono text-[12px] break-all select-all">{link.href}</p>
        </div>
      )}
      {owns && (
        <InviteForm
          api={api}
          onInvited={(name, { link: href, known }) => {
            if (href) setLink({ name, href });
            if (known)
              tell(
                `${known.name} has had an account here since ${dayOf(known.since)}, and finds it at home. If that is somebody else, let them out again.`,
              );
            void again();
          }}
        />
      )}
    </Window>
  );
}

interface LetIn {
  /** To send to who has no account yet. */
  readonly link?: string;
  /** Whose account it is that they have already. */
  readonly known?: { readonly name: string; readonly since: string };
}

const dayOf = (moment: string): string =>
  new Date(moment).toLocaleDateString('en-GB', { dateStyle: 'medium' });

interface InviteProps {
  readonly api: string;
  readonly onInvited: (name: string, letIn: LetIn) => void;
}

function InviteForm({ api, onInvited }: InviteProps) {
  const start = { name: '', email: '', role: 'editor' };
  const { register, handleSubmit, setError, reset, formState } = useForm({ defaultValues: start });
  const [problem, setProblem] = useState('');
  const submit = handleSubmit(async (values) => {
    setProblem('');
    const answer = await send<LetIn>('POST', api, values);
    if (answer.ok) {
      reset();
      return onInvited(values.name, answer.value);
    }
    const fields = (['name', 'email'] as const).filter((field) => answer.fields[field]);
    for (const field of fields) setError(field, { message: answer.fields[field] ?? '' });
    if (fields.length === 0) setProblem(answer.detail);
  });
  return (
    <form className="grid gap-2" noValidate onSubmit={(event) => void submit(event)}>
      <h3 className="font-semibold">Let somebody in</h3>
      <TextField
        label="Name"
        autoComplete="off"
        problem={formState.errors.name?.message}
        {...register('name')}
      />
      <TextField
        label="E-mail address"
        type="email"
        autoComplete="off"
        problem={formState.errors.email?.message}
        {...register('email')}
      />
      <label>
        <span className="text-quiet">As</span>
        <select className="field-box" {...register('role')}>
          {ROLES.map(([role, says]) => (
            <option key={role} value={role}>
              {says}
            </option>
          ))}
        </select>
      </label>
      <Told text={problem} />
      <span>
        <button type="submit" className="button button-main" disabled={formState.isSubmitting}>
          Let them in
        </button>
      </span>
    </form>
  );
}
