import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import {
  SIGNED_IN,
  SIGNED_OUT,
  viewerOfGroup,
  viewerOfPerson,
  viewerOfRole,
  type Person,
  type Viewer,
} from './viewer';

export const SIGNED_OUT_KEY = 'signed-out';
export const SIGNED_IN_KEY = 'signed-in';

/** What a key can stand for, beside the two login states. */
const WITH_ID = ['role', 'group', 'person', 'kept', 'made'] as const;
type WithId = (typeof WITH_ID)[number];

/** A key, read: a login state, or what it stands for and its id (of one made up on the spot, its JSON). */
export type ReadKey =
  { readonly kind: 'signed-out' | 'signed-in' } | { readonly kind: WithId; readonly id: string };

/**
 * The key of a viewer: how addresses, files and requests name through whose eyes one looks. The login states are
 * `signed-out` and `signed-in`; then `role:ID`, `group:ID`, `person:ID`, `kept:ID` (a made-up one that was kept)
 * and `made:JSON`.
 *
 * @example
 * viewerKey('role', 'curator') // → 'role:curator'
 */
export const viewerKey = (kind: WithId, id: string): string => `${kind}:${id}`;

/**
 * Reads a viewer's key, as `viewerKey` writes it. Undefined for what is none; whether there is such a role or person is
 * not asked.
 *
 * @example
 * readViewerKey('role:curator') // → { kind: 'role', id: 'curator' }
 * readViewerKey('curator') // → undefined
 */
export function readViewerKey(key: string): ReadKey | undefined {
  if (key === SIGNED_OUT_KEY || key === SIGNED_IN_KEY) return { kind: key };
  const [before, id] = key.split(/:(.*)/s);
  const kind = WITH_ID.find((one) => one === before);
  return kind && id ? { kind, id } : undefined;
}

/** The id in a key of this kind; undefined in any other key. */
export function idInKey(kind: WithId, key: string): Id | undefined {
  const read = readViewerKey(key);
  return read && 'id' in read && read.kind === kind ? read.id : undefined;
}

/** A viewer with its key, and what it is called. */
export interface KeyedViewer {
  readonly key: string;
  readonly name: string;
  readonly viewer: Viewer;
}

export const SIGNED_OUT_STATE: KeyedViewer = { key: SIGNED_OUT_KEY, name: 'Signed out', viewer: SIGNED_OUT };
export const SIGNED_IN_STATE: KeyedViewer = { key: SIGNED_IN_KEY, name: 'Signed in', viewer: SIGNED_IN };
export const LOGIN_STATES: readonly KeyedViewer[] = [SIGNED_OUT_STATE, SIGNED_IN_STATE];

export const keyedRoles = ({ roles }: Pick<Definition, 'roles'>): readonly KeyedViewer[] =>
  roles.map(({ id, name }) => ({ key: viewerKey('role', id), name, viewer: viewerOfRole(id) }));

export const keyedGroups = ({ groups }: Pick<Definition, 'groups'>): readonly KeyedViewer[] =>
  groups.map(({ id, name }) => ({ key: viewerKey('group', id), name, viewer: viewerOfGroup(id) }));

export const keyedPerson = (person: Person): KeyedViewer => ({
  key: viewerKey('person', person.id),
  name: person.name,
  viewer: viewerOfPerson(person),
});

/** The kinds of viewers of an application, as its columns stand: login states, roles in the builder's order, groups. */
export const kindsOf = (definition: Pick<Definition, 'roles' | 'groups'>): readonly KeyedViewer[] => [
  ...LOGIN_STATES,
  ...keyedRoles(definition),
  ...keyedGroups(definition),
];

/** Everybody there is: who is signed out, and all people who may sign in. */
export const everybody = (people: readonly Person[]): readonly KeyedViewer[] => [
  SIGNED_OUT_STATE,
  ...people.filter(({ active }) => active).map(keyedPerson),
];
