'use client';

import { useState } from 'react';
import { compile } from '@/core';
import type { Note } from '@/core/access';
import type { Definition } from '@/core/model';
import { counted } from '@/core/edit';
import { momentInWords } from './when-choice';

/** The notes that wait: each opens at the very state in which its sender was refused. */
export function NotesPart({
  notes,
  definition,
  mayChange,
  onOpen,
  onDone,
}: {
  notes: readonly Note[];
  definition: Definition;
  mayChange: boolean;
  onOpen: (note: Note) => void;
  onDone: (note: Note) => void;
}) {
  const [open, setOpen] = useState(false);
  if (notes.length === 0) return null;
  const { tree } = compile(definition);
  return (
    <section aria-label="Access requests" className="mb-4 border-l-4 border-lead bg-plate px-3 py-2">
      <button
        type="button"
        aria-expanded={open}
        className="min-h-[24px] font-semibold hover:underline"
        onClick={() => setOpen(!open)}
      >
        {counted(notes.length, 'access request')}
      </button>
      {open && (
        <ul>
          {notes.map((note) => (
            <li key={note.id} className="border-t border-rule py-1.5">
              <p>
                <strong className="font-semibold">{note.name}</strong>,{' '}
                {momentInWords(definition, note.moment)}
              </p>
              <p className="break-all">
                <code className="font-mono text-[12px]">{note.address}</code>
                {note.element !== null && ` ${tree.get(note.element)?.name ?? ''}`}
              </p>
              {note.text && <p className="break-words">“{note.text}”</p>}
              <p className="flex gap-3">
                <button type="button" className="link text-left" onClick={() => onOpen(note)}>
                  View as {note.name}, at that time and address
                </button>
                {mayChange && (
                  <button type="button" className="link" onClick={() => onDone(note)}>
                    Mark as done
                  </button>
                )}
              </p>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
