'use client';

import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { send } from '@/ui/client/send';
import { makeUpRecords } from '@/contract/studio/data';
import { Told, TextField } from '../../../parts/fields';
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
      title="Made-up records"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="button">
          Make some up …
        </button>
      }
    >
      <form className="grid gap-2" noValidate onSubmit={(event) => void submit(event)}>
        <p>Each field gets what fits its type and its name. Nothing of it is about anybody.</p>
        <TextField label="How many" inputMode="numeric" {...register('count')} />
        <TextField label="Seed: the same makes the same" inputMode="numeric" {...register('seed')} />
        <Told text={problem} />
        <span>
          <button type="submit" className="button button-main" disabled={formState.isSubmitting}>
            Make them
          </button>
        </span>
      </form>
    </Window>
  );
}
