import { and, desc, eq, gt, inArray, lte, sql } from 'drizzle-orm';
import { difference, viewerKey } from '@/core';
import { idInKey, keyedPerson, kindsOf } from '@/core/access';
import { changeInWords, fullName } from '@/core/edit';
import { type Id, treeOf } from '@/core/model';
import {
  type Cause,
  causesOf,
  changedCells,
  changedPeople,
  gains,
  otherwiseBetween,
  personSays,
  type AccessSnapshot,
} from '@/core/signing';
import type { Compared, Listed, ChangeInfo } from '@/contract/studio/proving';
import { database } from '../database/client';
import { auditEvents, builders, people } from '../database/schema';
import { draftOf, revisionsSince } from '../drafts/draft';
import { takeSteps, type Tell } from '../http/progress';
import { peopleOf } from '../people/read';
import { signOffById } from './sign-offs';

const MOST_LISTED = 200;
const MOST_NAMES = 6;

const listed = <From, To>(all: readonly From[], shown: (one: From) => To): Listed<To> => ({
  first: all.slice(0, MOST_LISTED).map(shown),
  count: all.length,
});

const MOST_CELLS = 2000;
const IN_WORDS = new Intl.ListFormat('en-GB');

/** What is written down of changes that may give somebody something. */
const OF_PEOPLE = ['person-created', 'person-changed', 'person-switched-off', 'signed-up', 'joined', 'left'];

/** A standing with when it was: now, or what was signed off. */
type Known = AccessSnapshot & { readonly revision: number; readonly at: Date };

/** What differs between what was signed off, and now or another sign-off, and by which changes it came. */
export async function compareSignOff(
  applicationId: string,
  id: string,
  other: string | undefined,
  tell: Tell,
  signal: AbortSignal,
): Promise<Compared> {
  const signed = await signedAt(applicationId, id);
  const now = other === undefined ? await knownNow(applicationId) : await signedAt(applicationId, other);
  const [from, to] = signed.revision <= now.revision && signed.at <= now.at ? [signed, now] : [now, signed];
  const revisions = (await revisionsSince(applicationId, from.revision)).filter(
    ({ revision }) => revision <= to.revision,
  );
  const inThree = (part: number): Tell => {
    return (done, of) => tell(Math.round((part + done / Math.max(of, 1)) * 100), 300);
  };
  const { cells, isChanged, ...counted } = await takeSteps(
    changedCells(signed, now, MOST_CELLS),
    inThree(0),
    signal,
  );
  const otherwise = await takeSteps(otherwiseBetween(signed, now, isChanged), inThree(1), signal);
  // What was signed off later is not made by what came before it.
  const causes =
    from === signed
      ? await takeSteps(causesOf(signed, now, revisions, cells), inThree(2), signal)
      : new Map<(typeof cells)[number], Cause>();
  const byRevision = new Map(revisions.map((one) => [one.revision, one]));
  const ofPeople = await changesOfPeople(applicationId, from.at, to.at);
  const trees = [treeOf(now.definition), treeOf(signed.definition)];
  const elementOf = (element: Id) => trees.map((tree) => tree.get(element)).find((one) => one !== undefined);
  const nameOf = (element: Id): string => {
    const found = elementOf(element);
    return found ? fullName(found) : element;
  };
  const viewers = [now, signed].flatMap(({ definition, people: persons }) => [
    ...kindsOf(definition),
    ...persons.map(keyedPerson),
  ]);
  const names = new Map(viewers.map(({ key, name }) => [key, name]));
  return {
    otherwise: listed(otherwise, ({ element, what, who }) => ({
      element,
      elementName: nameOf(element),
      what,
      who: who.slice(0, MOST_NAMES).map((key) => names.get(key) ?? key),
      count: who.length,
    })),
    definition: listed(difference(signed.definition, now.definition), (change) =>
      changeInWords(change, signed.definition, now.definition, (person) =>
        names.get(viewerKey('person', person)),
      ),
    ),
    people: listed(peopleBetween(signed, now), (one) => one),
    cells: cells.map((cell) => {
      const element = elementOf(cell.element);
      const { edit, person } = causes.get(cell) ?? {};
      const made = edit && byRevision.get(edit.revision);
      return {
        ...cell,
        elementName: nameOf(cell.element),
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
  const at = new Date();
  return { definition, revision, people: await peopleOf(applicationId), at, moment: at.getTime() };
}

async function signedAt(applicationId: string, id: string): Promise<Known> {
  const { definition, revision, people: persons, at } = await signOffById(applicationId, id);
  return { definition, revision, people: persons, at, moment: at.getTime() };
}

/** What is otherwise with each person, in words: who came, who is gone, and all that changed. */
function peopleBetween(
  before: AccessSnapshot,
  after: AccessSnapshot,
): { readonly name: string; readonly says: string }[] {
  const [then, now] = [before, after].map((side) => new Map(side.people.map((one) => [one.id, one])));
  const changed = changedPeople(before, after).map(([was, is]) => ({ was, is, name: is.name }));
  const came = after.people.flatMap((is) =>
    then?.has(is.id) ? [] : [{ was: undefined, is, name: is.name }],
  );
  const left = before.people.flatMap((was) =>
    now?.has(was.id) ? [] : [{ was, is: undefined, name: was.name }],
  );
  return [...changed, ...came, ...left].map(({ was, is, name }) => ({
    name,
    says: personSays(before, after, was, is) || 'has changed',
  }));
}

/** By whom each person was changed between two times in what may have given them something, as it is written down. */
async function changesOfPeople(
  applicationId: string,
  after: Date,
  until: Date,
): Promise<Map<string, ChangeInfo>> {
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
