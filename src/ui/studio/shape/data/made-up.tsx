'use client';

import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { send } from '@/ui/client/send';
import { makeUpRecords } from '@/contract/studio/data';
import { FieldMessage, TextField } from '../../../parts/fields';
import { Window } from '../../../parts/window';

interface Props {
  readonly app: string;
  readonly entity: string;
  readonly onMade: () => Promise<void>;
}

/** Fills in made-up sample records: the same for the same seed. */
export function MadeUp({ app, entity, onMade }: Props) {
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState('');
  const { register, handleSubmit, formState } = useForm({ defaultValues: { count: '50', seed: '1' } });
  const submit = handleSubmit(async ({ count, seed }) => {
    const answer = await send(makeUpRecords, {
      ...{ app, entity, query: { records: 'sample' } },
      body: { count: Number(count), seed: Number(seed) },
    });
    setProblem(answer.ok ? '' : (Object.values(answer.fields)[0] ?? answer.detail));
    if (!answer.ok) return;
    setOpen(false);
    await onMade();
  });
  return (
    <Window
      title="Generate sample records"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="button">
          Generate records…
        </button>
      }
    >
      <form className="grid gap-2" noValidate onSubmit={(event) => void submit(event)}>
        <p>
          Each field is filled with invented values that match its type and name. They do not refer to real
          people.
        </p>
        <TextField label="Number of records" inputMode="numeric" {...register('count')} />
        <TextField
          label="Seed (the same seed gives the same records)"
          inputMode="numeric"
          {...register('seed')}
        />
        <FieldMessage text={problem} />
        <span>
          <button type="submit" className="button button-main" disabled={formState.isSubmitting}>
            Generate
          </button>
        </span>
      </form>
    </Window>
  );
}
