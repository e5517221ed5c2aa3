import { and, desc, eq, gt, inArray, lte, sql } from 'drizzle-orm';
import { type Answer, idInKey } from '@/core/access';
import { fullName } from '@/core/edit';
import { treeOf } from '@/core/model';
import { type Cause, causesOf, changedCells, gains, type Standing } from '@/core/signing';
import { database } from '../database/client';
import { auditEvents, builders, people } from '../database/schema';
import { draftOf, revisionsSince } from '../drafts/draft';
import { takeSteps, type Tell } from '../http/progress';
import { peopleOf } from '../people/read';
import { signOffById } from './sign-offs';

/** Who made a change, and when. */
interface Made {
  /** All of them, the last one first; undefined where they are gone. */
  readonly author?: string | undefined;
  /** The last time, RFC 3339. */
  readonly at: string;
}

/** A cell that is another since something was signed off. */
interface ComparedCell {
  readonly viewer: string;
  readonly viewerName: string;
  readonly element: string;
  /** In a sentence of its own. */
  readonly elementName: string;
  readonly kind: string;
  readonly before: Answer;
  readonly after: Answer;
  readonly gains: boolean;
  /** The edit that made it so, and what it changed in a sentence or two. */
  readonly edit?: (Made & { readonly revision: number; readonly says: string }) | undefined;
  /** What is otherwise with the person, as what follows their name; by whom, where that was written down. */
  readonly person?: (Partial<Made> & { readonly says: string }) | undefined;
}

/** What differs from what was signed off. */
export interface Compared {
  readonly cells: readonly ComparedCell[];
  /** Of all, also those that are not among `cells`. */
  readonly gained: number;
  readonly lost: number;
}

const MOST_CELLS = 2000;
const IN_WORDS = new Intl.ListFormat('en-GB');

/** What is written down of changes that may give somebody something. */
const OF_PEOPLE = ['person-created', 'person-changed', 'person-switched-off', 'signed-up', 'joined', 'left'];

/** A standing with when it was: now, or what was signed off. */
type Known = Standing & { readonly revision: number; readonly at: Date };

/** What differs between what was signed off, and now or another sign-off, and by which changes it came. */
export async function compareSignOff(
  applicationId: string,
  id: string,
  other: string | undefined,
  tell: Tell,
  signal: AbortSignal,
): Promise<Compared> {
  const signed = await signOffById(applicationId, id);
  const now = other === undefined ? await knownNow(applicationId) : await signOffById(applicationId, other);
  const [from, to] = signed.revision <= now.revision && signed.at <= now.at ? [signed, now] : [now, signed];
  const revisions = (await revisionsSince(applicationId, from.revision)).filter(
    ({ revision }) => revision <= to.revision,
  );
  const moment = Date.now();
  let viewers = 0;
  const { cells, ...counted } = await takeSteps(
    changedCells(signed, now, moment, MOST_CELLS),
    (done, of) => {
      viewers = of;
      tell(done, of + revisions.length);
    },
    signal,
  );
  // What was signed off later is not made by what came before it.
  const causes =
    from === signed
      ? await takeSteps(
          causesOf(signed, now, revisions, cells, moment),
          (done, of) => tell(viewers + done, viewers + of),
          signal,
        )
      : new Map<(typeof cells)[number], Cause>();
  const byRevision = new Map(revisions.map((one) => [one.revision, one]));
  const ofPeople = await changesOfPeople(applicationId, from.at, to.at);
  const trees = [treeOf(now.definition), treeOf(signed.definition)];
  return {
    cells: cells.map((cell) => {
      const element = trees.map((tree) => tree.get(cell.element)).find((one) => one !== undefined);
      const { edit, person } = causes.get(cell) ?? {};
      const made = edit && byRevision.get(edit.revision);
      return {
        ...cell,
        elementName: element ? fullName(element) : cell.element,
        kind: element?.kind ?? 'section',
        gains: gains(cell),
        edit: edit && made && { ...edit, author: made.author, at: new Date(made.at).toISOString() },
        person: person && { ...person, ...ofPeople.get(idInKey('person', cell.viewer) ?? '') },
      };
    }),
    ...counted,
  };
}

async function knownNow(applicationId: string): Promise<Known> {
  const { definition, revision } = await draftOf(applicationId);
  return { definition, revision, people: await peopleOf(applicationId), at: new Date() };
}

/** By whom each person was changed between two times in what may have given them something, as it is written down. */
async function changesOfPeople(applicationId: string, after: Date, until: Date): Promise<Map<string, Made>> {
  const person = sql<string>`coalesce(${auditEvents.detail} ->> 'person', ${auditEvents.personId}::text)`;
  const author = sql<string | null>`coalesce(${builders.name}, ${people.name})`;
  const last = sql<Date>`max(${auditEvents.at})`.mapWith(auditEvents.at);
  const rows = await database()
    .select({ person, author, last })
    .from(auditEvents)
    .leftJoin(builders, eq(builders.id, auditEvents.builderId))
    .leftJoin(people, eq(people.id, auditEvents.personId))
    .where(
      and(
        eq(auditEvents.applicationId, applicationId),
        inArray(auditEvents.what, OF_PEOPLE),
        gt(auditEvents.at, after),
        lte(auditEvents.at, until),
      ),
    )
    .groupBy(person, author)
    .orderBy(desc(last));
  const made = new Map<string, { authors: string[]; at: string }>();
  for (const { person: id, author: name, last: at } of rows) {
    const known = made.get(id) ?? { authors: [], at: at.toISOString() };
    made.set(id, { ...known, authors: name === null ? known.authors : [...known.authors, name] });
  }
  return new Map(
    [...made].map(([id, { authors, at }]) => [
      id,
      { at, author: authors.length > 0 ? IN_WORDS.format(authors) : undefined },
    ]),
  );
}
