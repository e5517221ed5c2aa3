'use client';

import { useState, type ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { addKind } from '@/core/edit';
import { namesOf } from '@/core/making';
import { TextField } from '../../parts/fields';
import { Window } from '../../parts/window';
import { useBench } from '../frame/bench';
import { Checkbox } from '@/ui/parts/checkbox';

interface Props {
  readonly trigger: ReactNode;
  /** Told its id; it is not there yet. */
  readonly onAdded: (id: string) => void;
}

/** Adds a kind of data, called as the builder says, by itself or with screens that work at once. */
export function NewKind({ trigger, onAdded }: Props) {
  const { definition, apply } = useBench();
  const [open, setOpen] = useState(false);
  const { register, handleSubmit, reset, watch, formState } = useForm({
    defaultValues: { name: '', plural: '', screens: true },
  });
  const guessed = namesOf(watch('name')).plural;
  const submit = handleSubmit(({ name, plural, screens }) => {
    const names = { name: name.trim(), plural: plural.trim() || guessed };
    const { edit, id } = addKind(definition, names, { screens });
    apply(edit);
    onAdded(id);
    setOpen(false);
  });
  return (
    <Window
      title="New entity"
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        reset();
      }}
      trigger={trigger}
    >
      <form className="grid gap-2" noValidate onSubmit={(event) => void submit(event)}>
        <TextField
          label="Name"
          autoFocus
          maxLength={100}
          problem={formState.errors.name && 'Enter a singular name, such as Booking.'}
          {...register('name', { validate: (name) => name.trim() !== '' })}
        />
        <TextField label="Plural name" maxLength={100} placeholder={guessed} {...register('plural')} />
        <Checkbox {...register('screens')}>
          Also create a list, a record screen, a form for new records and a menu item
        </Checkbox>
        <span>
          <button type="submit" className="button button-main">
            Add entity
          </button>
        </span>
      </form>
    </Window>
  );
}
