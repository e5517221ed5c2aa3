'use client';

import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { useForm, type DefaultValues, type FieldValues, type Path } from 'react-hook-form';
import { addressFrom } from '@/core/making';
import { send, urlOf, type Reply } from '@/ui/client/send';
import { recordsFile } from '@/contract/studio/data';
import {
  changeDraft,
  definitionFile,
  deleteApplication,
  changeApplicationAddress,
} from '@/contract/studio/draft';
import { lookDefinition } from '@/contract/studio/look';
import { makeApplication } from '@/contract/studio/making';
import { FieldMessage, TextField } from '../../parts/fields';
import { useAsked } from '@/ui/client/queries';
import { useTell } from '../../parts/toasts';
import { Window } from '../../parts/window';
import type { HomeRow } from './home-row';

interface Props {
  readonly row: HomeRow;
  readonly onClose: () => void;
}

interface AskedFor<T extends FieldValues> {
  readonly title: string;
  readonly text?: ReactNode;
  readonly fields: readonly (readonly [Path<T>, string])[];
  readonly start: DefaultValues<T>;
  readonly go: string;
  readonly done: string;
  readonly send: (values: T) => Promise<Reply<unknown>>;
  readonly onClose: () => void;
}

/** A window that asks for some texts, does something with them, and says what is wrong beside each. */
function AskingFor<T extends FieldValues>({
  title,
  text,
  fields,
  start,
  go,
  done,
  send,
  onClose,
}: AskedFor<T>) {
  const { register, handleSubmit, setError, formState } = useForm<T>({ defaultValues: start });
  const [problem, setProblem] = useState('');
  const router = useRouter();
  const tell = useTell();
  const submit = handleSubmit(async (values) => {
    setProblem('');
    const answer = await send(values);
    if (answer.ok) {
      tell(done);
      onClose();
      return router.refresh();
    }
    let beside = false;
    for (const [field] of fields)
      if (answer.fields[field]) {
        setError(field, { message: answer.fields[field] });
        beside = true;
      }
    if (!beside) setProblem(answer.detail);
  });
  return (
    <Window title={title} open onOpenChange={(open) => !open && onClose()}>
      <form className="grid gap-3" noValidate onSubmit={(event) => void submit(event)}>
        {text}
        {fields.map(([field, label]) => (
          <TextField
            key={field}
            label={label}
            problem={formState.errors[field]?.message as string | undefined}
            autoComplete="off"
            {...register(field)}
          />
        ))}
        <FieldMessage text={problem} />
        <span>
          <button type="submit" className="button button-main" disabled={formState.isSubmitting}>
            {go}
          </button>
        </span>
      </form>
    </Window>
  );
}

export function CopyWindow({ row, onClose }: Props) {
  const name = `Copy of ${row.name.slice(0, 110)}`;
  return (
    <AskingFor<{ name: string; slug: string }>
      title={`Copy ${row.name}`}
      text={
        <p>
          The copy contains the draft’s screens, menus, roles, gates and sample records. It contains no people
          and no live records.
        </p>
      }
      fields={[
        ['name', 'Name'],
        ['slug', 'Address, after /live/'],
      ]}
      start={{ name, slug: addressFrom(name, 'copy') }}
      go="Copy"
      done="Application copied."
      send={(values) => send(makeApplication, { body: { from: 'copy', of: row.slug, ...values } })}
      onClose={onClose}
    />
  );
}

/** Renaming is an edit of the draft: it can be undone there, and people see it from the next release. */
export function RenameWindow({ row, onClose }: Props) {
  return (
    <AskingFor<{ name: string }>
      title={`Rename ${row.name}`}
      text={
        <p>
          Builders see the new name immediately. Users see it from the next release. The address does not
          change.
        </p>
      }
      fields={[['name', 'Name']]}
      start={{ name: row.name }}
      go="Rename"
      done="Application renamed."
      send={({ name }) =>
        send(changeDraft, {
          app: row.slug,
          body: {
            base: row.revision,
            ask: 'edit',
            edit: { do: 'changeSettings', from: { name: row.name }, to: { name: name.trim() } },
            request: undefined,
            confirmed: undefined,
          },
        })
      }
      onClose={onClose}
    />
  );
}

export function MoveWindow({ row, onClose }: Props) {
  return (
    <AskingFor<{ slug: string }>
      title={`Change the address of ${row.name}`}
      text={<p>The old address redirects to the new one. Everyone has to sign in again.</p>}
      fields={[['slug', 'Address, after /live/']]}
      start={{ slug: row.slug }}
      go="Change address"
      done="Address changed."
      send={(values) => send(changeApplicationAddress, { app: row.slug, body: values })}
      onClose={onClose}
    />
  );
}

export function DeleteWindow({ row, onClose }: Props) {
  return (
    <AskingFor<{ name: string }>
      title={`Delete ${row.name}`}
      text={
        <>
          <p>
            Its address is <span className="font-mono">/live/{row.slug}</span>. This also deletes its screens,
            gates, releases, {row.people} people and all sample and live records. It cannot be undone.
          </p>
          <p>If you might need any of this again, export it first.</p>
        </>
      }
      fields={[['name', `To confirm, type the application’s name: ${row.name}`]]}
      start={{ name: '' }}
      go="Delete application"
      done="Application deleted."
      send={(values) => send(deleteApplication, { app: row.slug, body: values })}
      onClose={onClose}
    />
  );
}

/** Its definition and its records, each as a file. */
export function TakeOutWindow({ row, onClose }: Props) {
  const app = row.slug;
  const { data, error } = useAsked(lookDefinition, { app });
  return (
    <Window title={`Export ${row.name}`} open onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3">
        <a className="link" href={urlOf(definitionFile, { app })} download>
          Definition
        </a>{' '}
        <span className="text-quiet">
          A JSON file with screens, menus, data, roles and gates. You can create an application from it.
        </span>
      </p>
      <FieldMessage text={error?.message ?? ''} />
      {data && data.definition.entities.length > 0 && (
        <table aria-label="Records" className="w-full text-left">
          <thead>
            <tr className="border-y border-rule">
              <th className="py-1 font-medium">Records, as CSV</th>
              <th className="py-1 font-medium">Sample</th>
              <th className="py-1 font-medium">Live</th>
            </tr>
          </thead>
          <tbody>
            {data.definition.entities.map(({ id, plural }) => (
              <tr key={id} className="border-b border-sheet">
                <td className="py-1">{plural}</td>
                {(['sample', 'live'] as const).map((kind) => (
                  <td key={kind} className="py-1">
                    <a
                      className="link"
                      download
                      aria-label={`${plural}, ${kind}`}
                      href={urlOf(recordsFile, { app, entity: id, query: { records: kind } })}
                    >
                      {kind}.csv
                    </a>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {data && (
        <p className="mt-2 text-quiet">
          You need access to live records to export them. Every export is recorded in the audit trail.
        </p>
      )}
    </Window>
  );
}
