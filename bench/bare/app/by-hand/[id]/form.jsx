'use client';

import { useState } from 'react';

const SECTIONS = [
  {
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
    name: 'Custody',
    fields: [
      { id: 'item_value', label: 'Insurance value' },
      { id: 'item_lender', label: 'Lender' },
      { id: 'item_lender_email', label: 'Lender email' },
      { id: 'item_store', label: 'Store and shelf' },
      {
        id: 'item_condition',
        label: 'Condition',
        options: ['sound', 'stable', 'fragile', 'under-treatment'],
      },
      { id: 'item_branch', label: 'Branch', options: ['main-hall', 'mill-annexe'] },
      { id: 'item_shown', label: 'On display', check: true },
    ],
  },
];

/** The form of one record, written by hand. */
export function ItemForm({ id, version, values, mayEdit, mayDelete }) {
  const [now, setNow] = useState(values);
  const set = (field, value) => setNow((before) => ({ ...before, [field]: value }));
  const save = async (event) => {
    event.preventDefault();
    await fetch(`/api/items/${id}`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json', 'If-Match': String(version) },
      body: JSON.stringify(now),
    });
  };
  return (
    <form onSubmit={save}>
      {SECTIONS.map(({ name, fields }) => (
        <section key={name} className="mb-4 border p-4">
          <h2 className="mb-2 font-semibold">{name}</h2>
          <div className="grid grid-cols-2 gap-x-6 gap-y-2">
            {fields
              .filter((one) => now[one.id] !== undefined)
              .map((one) => (
                <label key={one.id} className="block">
                  <span className="block text-sm">
                    {one.label}
                    {one.required && ' *'}
                  </span>
                  <Input
                    field={one}
                    value={now[one.id]}
                    disabled={!mayEdit}
                    onChange={(to) => set(one.id, to)}
                  />
                </label>
              ))}
          </div>
        </section>
      ))}
      {mayEdit && <button type="submit">Save</button>}
      {mayEdit && <button type="button">Report a fault</button>}
      {mayDelete && <button type="button">Delete</button>}
    </form>
  );
}

function Input({ field, value, disabled, onChange }) {
  const common = { disabled, required: field.required, className: 'w-full border px-2 py-1' };
  if (field.options)
    return (
      <select {...common} value={value ?? ''} onChange={(event) => onChange(event.target.value)}>
        <option value="" />
        {field.options.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>
    );
  if (field.check)
    return (
      <input
        type="checkbox"
        checked={value === true}
        disabled={disabled}
        onChange={(event) => onChange(event.target.checked)}
      />
    );
  if (field.long)
    return <textarea {...common} value={value ?? ''} onChange={(event) => onChange(event.target.value)} />;
  return <input {...common} value={value ?? ''} onChange={(event) => onChange(event.target.value)} />;
}
