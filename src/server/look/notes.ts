import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import type { Note } from '@/core/access';
import { database } from '../database/client';
import { isUuid } from '../database/uuid';
import { notes, people } from '../database/schema';
import { notThere } from '../http/problem';

/** The notes that nobody has dealt with yet, newest first. */
export async function openNotes(applicationId: string): Promise<Note[]> {
  const rows = await database()
    .select({
      id: notes.id,
      person: people.id,
      name: people.name,
      address: notes.address,
      element: notes.element,
      text: notes.text,
      release: notes.release,
      session: notes.session,
      at: notes.at,
    })
    .from(notes)
    .innerJoin(people, eq(people.id, notes.personId))
    .where(and(eq(notes.applicationId, applicationId), isNull(notes.doneAt)))
    .orderBy(desc(notes.at))
    .limit(200);
  return rows.map(({ at, ...note }) => ({ ...note, moment: at.getTime() }));
}

/** Marks a note as dealt with. */
export async function closeNote(applicationId: string, id: string): Promise<void> {
  if (!isUuid(id)) throw notThere();
  const done = await database()
    .update(notes)
    .set({ doneAt: sql`now()` })
    .where(and(eq(notes.id, id), eq(notes.applicationId, applicationId)))
    .returning({ id: notes.id });
  if (done.length === 0) throw notThere();
}
