import type { PeopleKnown, Person } from '@/core/access';
import type { Value } from '@/core/model';
import { csv, json, jsonBeside } from '../body';
import { ofApplication } from '../route';

const schemas = () => import('../schemas/people');

/** A person as the table shows them. */
export interface PersonRow extends Person {
  readonly confirmed: boolean;
  readonly startScreen: string | null;
}

/** A page of people, and how many there are in all. */
export interface PeoplePage {
  readonly people: readonly PersonRow[];
  readonly total: number;
}

/** What one running session holds, as the builder sees it. */
export interface RunningSession {
  readonly since: string;
  /** What is set in it, and until when (milliseconds since 1970). */
  readonly values: Readonly<Record<string, { readonly value: Value; readonly until: number }>>;
  readonly unlocked: readonly { readonly element: string; readonly until: number }[];
}

/** What comes of a line of a file. */
export interface ImportLine {
  readonly line: number;
  readonly email: string;
  readonly does: 'new' | 'changes' | 'same' | 'wrong';
  /** What changes, or what is wrong, in words. */
  readonly says: readonly string[];
}

/** What an import of people tells: every line that is wrong, and the first of the others. */
export interface PeopleImported {
  readonly lines: readonly ImportLine[];
  readonly counts: Readonly<Record<ImportLine['does'], number>>;
}

/** A message that would have been sent; its link, which is a key, is asked for by itself. */
export interface OutboxMessage {
  readonly id: string;
  readonly to: string;
  readonly subject: string;
  /** With `{link}` where the link belongs. */
  readonly body: string;
  readonly hasLink: boolean;
  /** RFC 3339. */
  readonly at: string;
}

/** A page of the application's people. */
export const peoplePage = ofApplication(
  'GET',
  '/people?q&role&units&state&sort&page&size',
  'read',
).answers<PeoplePage>();

/** A new person, who is somebody once they have opened the link that is sent to them. */
export const addPerson = ofApplication('POST', '/people', 'people', {
  body: json(schemas, 'personSchema'),
  status: 201,
}).answers<{ readonly id: string }>();

/** A person with what their sessions hold now. */
export const personWithSessions = ofApplication('GET', '/people/:id', 'read').answers<{
  readonly person: Person;
  readonly sessions: readonly RunningSession[];
}>();

/** Changes a person; switching off ends their sessions at once. */
export const changePerson = ofApplication('PATCH', '/people/:id', 'people', {
  body: json(schemas, 'personChangeSchema'),
});

/** Sends a person a link to choose a password. */
export const sendPersonLink = ofApplication('POST', '/people/:id/link', 'people');

/** Lifts what makes a person wait to sign in, after wrong tries. */
export const liftPersonWaits = ofApplication('DELETE', '/people/:id/waits', 'people');

/** Everybody, as CSV. */
export const peopleFile = ofApplication('GET', '/people/csv', 'read').answersWhole();

/** Reads people from CSV: with `dry=yes`, only tells line by line what would happen. */
export const importPeople = ofApplication('POST', '/people/csv?dry', 'people', {
  body: csv(30_000_000),
}).answers<PeopleImported>();

/** The application's people by what a bench asks of them: how many are alike in it, and those asked for by name. */
export const peopleKnown = ofApplication('POST', '/people/known', 'read', {
  body: jsonBeside(schemas, 'askedOfPeopleSchema'),
}).answers<PeopleKnown>();

/** The newest messages that would have been sent, without their links, which are keys. */
export const outbox = ofApplication('GET', '/outbox', 'people').answers<{
  readonly messages: readonly OutboxMessage[];
}>();

/** Shows the link of one message. */
export const outboxLink = ofApplication('POST', '/outbox/:id/link', 'people').answers<{
  readonly link: string;
}>();
