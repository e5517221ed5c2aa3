import { accessOf, viewerOfPerson } from '@/core';
import type { Access, Compiled } from '@/core/access';
import { type Copy, personOfCopy, putPeople, type SweptPerson } from './copy';
import { sessionOf } from './session';
import type { SweptViewer } from './viewer';

/** What a viewer gets, at a moment of the one clock. */
type AccessAt = (moment: number) => Access;

/** What they get who are just as they are said to be here. */
const accessAs = (compiled: Compiled, swept: SweptPerson): AccessAt => {
  const viewer = viewerOfPerson(personOfCopy(swept));
  return (moment) => accessOf(compiled, viewer, { moment, session: {} });
};

/** Somebody who is switched off while they are at the application. */
export function switchedOff(
  copy: Copy,
  compiled: Compiled,
  off: SweptPerson,
  nobody: Omit<SweptViewer, 'name' | 'open'>,
): SweptViewer {
  const on = { ...off, person: { ...off.person, active: true } };
  return {
    ...nobody,
    name: `${off.name} since a moment ago`,
    sort: 'disabled',
    brief: true,
    open: async () => {
      await putPeople(copy, [on]);
      return sessionOf(copy, off.person.id);
    },
    besides: accessAs(compiled, on),
    end: () => putPeople(copy, [off]),
  };
}

/** Somebody without roles, from whom each role is taken away while they are at the application. */
export function rolesTaken(copy: Copy, compiled: Compiled): SweptViewer[] {
  const self = copy.people.findIndex(({ person }) => person.active && person.assignments.length === 0);
  const without = copy.people[self];
  if (!without) return [];
  return copy.definition.roles.map(({ id, name }): SweptViewer => {
    const holding = { ...without, person: { ...without.person, assignments: [{ role: id }] } };
    return {
      name: `Someone who had ${name} until a moment ago`,
      sort: `${id} taken`,
      brief: true,
      signedOut: false,
      self,
      standsIn: false,
      people: new Set([self]),
      open: async () => {
        await putPeople(copy, [holding]);
        return sessionOf(copy, without.person.id);
      },
      access: accessAs(compiled, without),
      besides: accessAs(compiled, holding),
      end: () => putPeople(copy, [without]),
    };
  });
}
