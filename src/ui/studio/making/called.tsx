'use client';

import { useForm, type UseFormRegisterReturn } from 'react-hook-form';
import { addressFrom } from '@/core/making';
import { TextField } from '../../parts/fields';

/** How the application is called, and where it is. */
export interface Called {
  readonly name: string;
  readonly slug: string;
}

/** What an application is called, with an address that follows its name until one is written. */
export function useCalled() {
  const form = useForm<Called>({ defaultValues: { name: '', slug: '' } });
  const named = form.register('name', {
    required: 'Enter a name.',
    maxLength: { value: 120, message: 'Use at most 120 characters.' },
    onChange: (event: { target: { value: string } }) => {
      if (form.formState.dirtyFields.slug) return;
      form.setValue('slug', addressFrom(event.target.value, ''));
    },
  });
  const addressed = form.register('slug', { required: 'Enter an address.' });
  /** Says what the server says of these two beside them; false where it says nothing of them. */
  const refuse = (fields: Readonly<Record<string, string>>): boolean => {
    for (const field of ['name', 'slug'] as const)
      if (fields[field]) {
        form.setError(field, { message: fields[field] }, { shouldFocus: true });
        return true;
      }
    return false;
  };
  /** Gives it a name where it has none yet. */
  const suggest = (name: string): void => {
    if (form.getValues('name') !== '') return;
    form.setValue('name', name);
    if (!form.formState.dirtyFields.slug) form.setValue('slug', addressFrom(name, ''));
  };
  void form.formState.dirtyFields;
  return { form, named, addressed, refuse, suggest };
}

interface NamesProps {
  readonly called: ReturnType<typeof useCalled>;
}

/** The two fields that every way of making an application begins with. */
export function CalledFields({ called: { form, named, addressed } }: NamesProps) {
  const { errors } = form.formState;
  const field = (label: string, registered: UseFormRegisterReturn, problem: string | undefined) => (
    <TextField label={label} autoComplete="off" problem={problem} {...registered} />
  );
  return (
    <div className="grid max-w-3xl grid-cols-2 gap-4">
      {field('Application name', named, errors.name?.message)}
      {field('Address, after /live/', addressed, errors.slug?.message)}
    </div>
  );
}
