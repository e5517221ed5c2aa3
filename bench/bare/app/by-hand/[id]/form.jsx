'use client';

import { useId } from 'react';
import { FormProvider, useForm, useFormContext } from 'react-hook-form';

const SECTIONS = [
  {
    id: 'n_description',
    name: 'Description',
    fields: [
      { id: 'item_title', label: 'Title', required: true },
      { id: 'item_maker', label: 'Maker' },
      { id: 'item_accession', label: 'Accession no.', required: true },
      { id: 'item_year', label: 'Year' },
      { id: 'item_notes', label: 'Notes', long: true },
    ],
  },
  {
    id: 'n_custody',
    name: 'Custody',
    fields: [
      { id: 'item_value', label: 'Insurance value', decimal: true },
      { id: 'item_lender', label: 'Lender' },
      { id: 'item_lender_email', label: 'Lender email' },
      { id: 'item_store', label: 'Store and shelf' },
      {
        id: 'item_condition',
        label: 'Condition',
        options: {
          sound: 'Sound',
          stable: 'Stable',
          fragile: 'Fragile',
          'under-treatment': 'Under treatment',
        },
      },
      {
        id: 'item_branch',
        label: 'Branch',
        required: true,
        options: { 'larkfield-all': 'Larkfield', 'main-hall': 'Main Hall', 'mill-annexe': 'Mill Annexe' },
      },
      { id: 'item_shown', label: 'On display', check: true },
    ],
  },
];

/** The form of one record, written by hand. */
export function ItemForm({ id, version, values, mayEdit, mayDelete }) {
  const form = useForm({ values, resetOptions: { keepDirtyValues: true } });
  const save = form.handleSubmit((now) =>
    fetch(`/api/items/${id}`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json', 'If-Match': String(version) },
      body: JSON.stringify(now),
    }),
  );
  return (
    <FormProvider {...form}>
      <form noValidate aria-busy={form.formState.isSubmitting} onSubmit={save}>
        <h1 className="mb-3 text-xl font-semibold" data-element="s_item">
          {values.item_title}
        </h1>
        {SECTIONS.map((section) => (
          <section
            key={section.id}
            data-element={section.id}
            aria-label={section.name}
            className="mb-4 border-t-2 border-ink bg-paper px-4 pt-2 pb-4"
          >
            <h2 className="mb-2 font-semibold">{section.name}</h2>
            <div className="grid grid-cols-2 gap-x-5 gap-y-3">
              {section.fields
                .filter((one) => one.id in values)
                .map((one) => (
                  <Field key={one.id} field={one} disabled={!mayEdit} />
                ))}
            </div>
          </section>
        ))}
        <section data-element="n_item_actions" aria-label="Actions" className="mb-4">
          <div className="flex flex-wrap gap-2">
            {mayEdit && (
              <button type="submit" data-element="b_save_item" className="button button-main">
                Save changes
              </button>
            )}
            {mayEdit && (
              <a className="button" data-element="b_request_loan" href="/loans/new">
                Request a loan
              </a>
            )}
            {mayEdit && (
              <button type="button" data-element="b_release_item" className="button">
                Release from store
              </button>
            )}
            {mayDelete && (
              <button type="button" data-element="b_delete_item" className="button">
                Delete
              </button>
            )}
          </div>
        </section>
      </form>
    </FormProvider>
  );
}

function Field({ field, disabled }) {
  const id = useId();
  const { register, formState } = useFormContext();
  const problem = formState.errors[field.id]?.message;
  const common = {
    id,
    disabled,
    'aria-required': field.required || undefined,
    'aria-invalid': problem ? true : undefined,
    className: 'field-box',
    ...register(field.id),
  };
  return (
    <div data-element={`p_${field.id}`} className={field.long ? 'col-span-2' : ''}>
      <label htmlFor={id} className="text-quiet">
        {field.label}
        {field.required && <span> (needed)</span>}
      </label>
      {field.options ? (
        <select {...common}>
          <option value="" />
          {Object.entries(field.options).map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </select>
      ) : field.check ? (
        <div className="py-1">
          <input {...common} type="checkbox" className="size-4 accent-open" />
        </div>
      ) : field.long ? (
        <textarea rows={3} {...common} />
      ) : (
        <input type="text" inputMode={field.decimal ? 'decimal' : undefined} {...common} />
      )}
      {problem && (
        <p role="alert" className="mt-1 font-medium">
          {problem}
        </p>
      )}
    </div>
  );
}
