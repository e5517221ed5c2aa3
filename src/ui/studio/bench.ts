'use client';

import type { Taken } from './taking';
import { shortNames } from './short-names';
import { createContext, useContext } from 'react';
import type { Access } from '@/core/access/access';
import type { Compiled } from '@/core/access/compile';
import {
  SIGNED_IN,
  SIGNED_OUT,
  viewerOfGroup,
  viewerOfPerson,
  viewerOfRole,
  type Circumstances,
  type Person,
  type Viewer,
} from '@/core/access/viewer';
import type { Numbers } from '@/core/access/numbers';
import type { Edit } from '@/core/edit/edit';
import type { Definition } from '@/core/model/definition';
import { withIncluded, type Element } from '@/core/model/tree';

/** One of the rail's viewers. */
export interface RailViewer {
  /** `signed-out`, `signed-in`, `role:ID`, `group:ID`, `person:ID`. */
  readonly key: string;
  readonly name: string;
  /** The name where there is little room. */
  readonly short: string;
  readonly note: string;
  readonly viewer: Viewer;
  /** Includes the one before it in the rail. */
  readonly joined: boolean;
  readonly group: 'login' | 'role' | 'group' | 'person';
}

/** What the parts of the gates bench share. */
export interface Bench {
  readonly definition: Definition;
  readonly compiled: Compiled;
  readonly people: readonly Person[];
  readonly personName: (id: string) => string | undefined;
  readonly viewers: readonly RailViewer[];
  /** The one through whose eyes the canvas looks. */
  readonly viewer: RailViewer;
  readonly look: (key: string) => void;
  readonly pin: (people: readonly string[]) => void;
  readonly selected: Element;
  readonly select: (id: string) => void;
  /** Whose gate is being edited: the selected element's own, or its door's. */
  readonly target: Element;
  readonly setTarget: (id: string) => void;
  readonly accessOf: (viewer: RailViewer) => Access;
  readonly numbers: Numbers;
  /** Of a kind of viewer whose people differ, how many get it, in words; else undefined. */
  readonly amongOf: (viewer: RailViewer, element: Element) => string | undefined;
  /** The moment at which all is decided, and what is set in the session. */
  readonly circumstances: Circumstances;
  /** Conditions that are taken as true or false on the canvas, and how to take one so. */
  readonly taken: Taken;
  readonly take: (taken: Taken) => void;
  /** `/studio/api/applications/<slug>` */
  readonly api: string;
  readonly mayChange: boolean;
  readonly apply: (edit: Edit) => void;
}

const BenchContext = createContext<Bench | undefined>(undefined);
export const BenchProvider = BenchContext.Provider;

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error('A part of the bench is drawn outside it');
  return bench;
}

const count = (n: number): string => (n === 1 ? '1 person' : `${n} people`);

/** The rail: login states, then roles in the builder's order, then pinned people. */
export function railViewers(
  definition: Pick<Definition, 'roles'>,
  numbers: Numbers,
  people: readonly Person[],
  pins: readonly string[],
): RailViewer[] {
  const short = shortNames(definition.roles.map((role) => role.name));
  const roles = definition.roles.map((role, n): RailViewer => {
    const before = definition.roles[n - 1];
    return {
      key: `role:${role.id}`,
      name: role.name,
      short: short.get(role.name) ?? role.name,
      note: count(numbers.peopleOf(`role:${role.id}`).length),
      viewer: viewerOfRole(role.id),
      joined: before !== undefined && withIncluded(definition, role.includes).has(before.id),
      group: 'role',
    };
  });
  const pinned = pins.flatMap((id): RailViewer[] => {
    const person = people.find((one) => one.id === id);
    return person ? [personViewer(person)] : [];
  });
  return [
    {
      key: 'signed-out',
      name: 'Signed out',
      short: 'Signed out',
      note: 'no session',
      viewer: SIGNED_OUT,
      joined: false,
      group: 'login',
    },
    {
      key: 'signed-in',
      name: 'Signed in',
      short: 'Signed in',
      note: 'no role',
      viewer: SIGNED_IN,
      joined: false,
      group: 'login',
    },
    ...roles,
    ...pinned,
  ];
}

/** What the groups get, of people of whom nothing else is known: columns of the grid. */
export const groupViewers = ({ groups }: Pick<Definition, 'groups'>, numbers: Numbers): RailViewer[] =>
  groups.map(({ id, name }) => ({
    key: `group:${id}`,
    name,
    short: name,
    note: `group, ${count(numbers.peopleOf(`group:${id}`).length)}`,
    viewer: viewerOfGroup(id),
    joined: false,
    group: 'group',
  }));

export const personViewer = (person: Person): RailViewer => ({
  key: `person:${person.id}`,
  name: person.name,
  short: person.name,
  note: person.active ? 'pinned' : 'switched off',
  viewer: viewerOfPerson(person),
  joined: false,
  group: 'person',
});
