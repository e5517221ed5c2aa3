'use client';

import { useState } from 'react';
import type { Note } from '@/core/access';
import { send } from '@/ui/client/send';
import { closeNote as closeNoteContract } from '@/contract/studio/look';
import { useTell } from '../../parts/toasts';
import { useStudio } from '../shell/studio-work';

/** The notes of people who should be able to see something; closing one is said to the server. */
export function useNotes(first: readonly Note[]): {
  readonly notes: readonly Note[];
  readonly closeNote: (note: Note) => void;
} {
  const { app } = useStudio();
  const tell = useTell();
  const [notes, setNotes] = useState(first);
  const closeNote = (note: Note): void => {
    setNotes((now) => now.filter((one) => one.id !== note.id));
    void send(closeNoteContract, { app, id: note.id }).then((answer) => answer.ok || tell(answer.detail));
  };
  return { notes, closeNote };
}
