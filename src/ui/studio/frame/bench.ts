'use client';

import { counted } from '@/core/edit';
import { useNeeded } from '../../parts/need-context';
import type { ConditionOverrides } from '../shared/condition-overrides';
import type { PeopleHere } from '../shared/use-people';
import { shortNames } from '../shared/short-names';
import { createContext } from 'react';
import type { Numbers } from '@/core';
import {
  type Access,
  type Circumstances,
  type Compiled,
  keyedGroups,
  keyedPerson,
  keyedRoles,
  type KeyedViewer,
  type Person,
  SIGNED_IN_STATE,
  SIGNED_OUT_STATE,
} from '@/core/access';
import type { Edit, PersonName } from '@/core/edit';
import { type AppElement, type Definition, type Role, withIncluded } from '@/core/model';

/** One of the rail's viewers. */
export interface RailViewer extends KeyedViewer {
  /** The name where there is little room. */
  readonly short: string;
  readonly note: string;
  /** Includes the one before it in the rail. */
  readonly joined: boolean;
  readonly group: 'login' | 'role' | 'group' | 'person';
}

/** What the parts of the gates bench share. */
export interface Bench {
  readonly definition: Definition;
  readonly compiled: Compiled;
  readonly people: PeopleHere;
  readonly personName: PersonName;
  readonly viewers: readonly RailViewer[];
  /** The one through whose eyes the canvas looks. */
  readonly viewer: RailViewer;
  readonly look: (key: string) => void;
  readonly pin: (people: readonly string[]) => void;
  readonly selected: AppElement;
  readonly select: (id: string) => void;
  /** Whose gate is being edited: the selected element's own, or its door's. */
  readonly target: AppElement;
  readonly setTarget: (id: string) => void;
  readonly accessFor: (viewer: RailViewer) => Access;
  readonly numbers: Numbers;
  /** Of a kind of viewer whose people differ, how many get it, in words; else undefined. */
  readonly amongOf: (viewer: RailViewer, element: AppElement) => string | undefined;
  /** The moment at which all is decided, and what is set in the session. */
  readonly circumstances: Circumstances;
  /** Conditions that are taken as true or false on the canvas, and how to take one so. */
  readonly taken: ConditionOverrides;
  readonly take: (taken: ConditionOverrides) => void;
  /** `/studio/api/applications/<app>` */
  readonly app: string;
  readonly mayChange: boolean;
  readonly apply: (edit: Edit) => void;
}

const BenchContext = createContext<Bench | undefined>(undefined);
export const BenchProvider = BenchContext.Provider;

export const useBench = (): Bench => useNeeded(BenchContext, 'Gates bench');

const count = (n: number): string => counted(n, 'person', 'people');

const stateViewer = (state: KeyedViewer, note: string): RailViewer => ({
  ...state,
  short: state.name,
  note,
  joined: false,
  group: 'login',
});
export const SIGNED_OUT_VIEWER = stateViewer(SIGNED_OUT_STATE, 'no session');
const STATES = [SIGNED_OUT_VIEWER, stateViewer(SIGNED_IN_STATE, 'no role')];

/** The rail: login states, then roles in the builder's order, then pinned people. */
export function railViewers(
  definition: Pick<Definition, 'roles'>,
  numbers: Numbers,
  named: readonly Person[],
  pins: readonly string[],
): RailViewer[] {
  const short = shortNames(definition.roles.map((role) => role.name));
  const roles = keyedRoles(definition).map((one, n): RailViewer => {
    const [before, role] = [definition.roles[n - 1], definition.roles[n] as Role];
    return {
      ...one,
      short: short.get(one.name) ?? one.name,
      note: count(numbers.countOf(one.key)),
      joined: before !== undefined && withIncluded(definition, role.includes).has(before.id),
      group: 'role',
    };
  });
  const pinned = pins.flatMap((id): RailViewer[] => {
    const person = named.find((one) => one.id === id);
    return person ? [personViewer(person)] : [];
  });
  return [...STATES, ...roles, ...pinned];
}

/** What the groups get, of people of whom nothing else is known: columns of the grid. */
export const groupViewers = (definition: Pick<Definition, 'groups'>, numbers: Numbers): RailViewer[] =>
  keyedGroups(definition).map((one) => ({
    ...one,
    short: one.name,
    note: `group of ${count(numbers.countOf(one.key))}`,
    joined: false,
    group: 'group',
  }));

const personViewer = (person: Person): RailViewer => ({
  ...keyedPerson(person),
  short: person.name,
  note: person.active ? 'pinned' : 'account disabled',
  joined: false,
  group: 'person',
});
