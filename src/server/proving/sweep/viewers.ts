import { accessOf, compile, viewerOfPerson } from '@/core';
import {
  type Access,
  HandingOut,
  holdsStandIn,
  NONE,
  type Person,
  SIGNED_OUT,
  ActingAccess,
  standsInFull,
} from '@/core/access';
import type { Definition, Id, Value, Values } from '@/core/model';
import { Already, askingOf, sweepMoments } from '@/core/sweep';
import { type Copy, knownIn, personOfCopy, type SweptPerson } from './copy';
import { rolesTaken, switchedOff } from './ending';
import { changeSession, HOURS, sessionOf } from './session';
import type { SweptViewer } from './viewer';

/** So many others are stood in for by each who may. */
const STOOD_IN_FOR = 3;

/**
 * All viewers of a copy: signed out, with the session of another application, one that has ended or that of somebody who is
 * switched off, every person, and where it matters with all session values set and at other times, and who may stand in
 * for others as some of these.
 */
export function viewersOf(copy: Copy, elsewhere: () => Promise<string>, whole = false): SweptViewer[] {
  const compiled = compile(copy.definition);
  const out = (moment: number): Access => accessOf(compiled, SIGNED_OUT, { moment });
  const nobody = { signedOut: true, standsIn: false, people: new Set<number>(), access: out };
  const [first] = copy.people;
  const off = copy.people.find(({ person }) => !person.active);
  const signedOut: SweptViewer = { name: 'Signed out', ...nobody, open: () => Promise.resolve(undefined) };
  const times = sweepMoments(copy.definition, Date.now());
  const records = new Already(knownIn(copy));
  const otherwise = {
    clock: new Otherwise(copy.definition, 'clock', records, whole),
    session: new Otherwise(copy.definition, 'session', records, whole),
  };
  /** The same viewer at the other times that matter to them, where one of these matters to nobody before. */
  const atOtherTimes = (now: SweptViewer): SweptViewer[] => {
    const before = now.access(Date.now());
    const others = times.filter((moment) => otherwise.clock.differs(before, now.access(moment)));
    return otherwise.clock.isNew(before, others.map(now.access))
      ? others.map((moment) => atAnotherTime(copy, now, moment))
      : [];
  };
  const all: SweptViewer[] = [
    signedOut,
    ...atOtherTimes(signedOut),
    {
      name: 'Signed in to another application',
      sort: 'elsewhere',
      brief: true,
      ...nobody,
      open: elsewhere,
    },
    ...(first
      ? [
          {
            name: 'With an expired session',
            sort: 'ended',
            brief: true,
            ...nobody,
            open: async () => {
              const token = await sessionOf(copy, first.person.id);
              await changeSession(token, { expiresAt: new Date(Date.now() - 1000) });
              return token;
            },
          },
        ]
      : []),
    ...(off
      ? [{ name: off.name, sort: 'off', brief: true, ...nobody, open: () => sessionOf(copy, off.person.id) }]
      : []),
    ...(off ? [switchedOff(copy, compiled, off, nobody)] : []),
    ...rolesTaken(copy, compiled),
  ];
  const set = sessionSet(copy.definition);
  for (const [self, swept] of copy.people.entries()) {
    const person = personOfCopy(swept);
    const viewer = viewerOfPerson(person);
    if (!person.active) continue;
    const own = accessOf(compiled, viewer, { moment: Date.now() });
    const standsIn = holdsStandIn(own);
    const people = standsIn ? everybodyIn(copy) : lookedAfter(copy, own, self);
    const asThemselves = { signedOut: false, self, standsIn, people };
    const now: SweptViewer = {
      name: swept.name,
      ...asThemselves,
      open: () => sessionOf(copy, person.id),
      access: (moment) => accessOf(compiled, viewer, { moment, session: {} }),
    };
    all.push(now, ...atOtherTimes(now));
    const withSession = accessOf(compiled, viewer, { moment: Date.now(), session: set });
    if (otherwise.session.isNew(now.access(Date.now()), [withSession]))
      all.push({
        name: `${swept.name}, with all session values set`,
        sort: 'with a session',
        besides: now.access,
        ...asThemselves,
        open: () => sessionOf(copy, person.id, set),
        access: (moment) => accessOf(compiled, viewer, { moment, session: set }),
      });
    if (standsIn) all.push(...standingIn(copy, swept, person));
  }
  return all;
}

const everybodyIn = ({ people }: Copy): Set<number> => new Set(people.keys());

/** Oneself, and whom one looks after. */
function lookedAfter({ definition, people }: Copy, own: Access, self: number): Set<number> {
  const parts = compile(definition).tree.elements.filter(({ kind }) => kind === 'people');
  if (!parts.some((part) => own.level(part, undefined) > NONE)) return new Set([self]);
  const units = new HandingOut(own.held, people[self]?.person.id ?? '').units();
  const there = [...people.entries()].filter(
    ([, { person }]) => units === undefined || units.has(String(person.attributes['home_unit'])),
  );
  return new Set([self, ...there.map(([n]) => n)]);
}

function standingIn(copy: Copy, swept: SweptPerson, own: Person): SweptViewer[] {
  const compiled = compile(copy.definition);
  const { standIn } = copy.definition;
  return copy.people
    .filter((other) => other !== swept && other.person.active)
    .slice(0, STOOD_IN_FOR)
    .map((other) => {
      const person = personOfCopy(other);
      return {
        name: `${swept.name}, acting as ${other.name}`,
        sort: 'standing in',
        signedOut: false,
        standsIn: true,
        people: everybodyIn(copy),
        open: async () => {
          const token = await sessionOf(copy, own.id);
          const standingUntil = new Date(Date.now() + HOURS * 3_600_000);
          await changeSession(token, { standingFor: person.id, standingUntil });
          return token;
        },
        access: (moment) => {
          const theirs = accessOf(compiled, viewerOfPerson(person), { moment });
          const mine = accessOf(compiled, viewerOfPerson(own), { moment, session: {} });
          const inFull = standsInFull(mine, person, moment);
          return new ActingAccess(theirs, inFull ? undefined : mine, !standIn?.changes);
        },
      };
    });
}

/** The same viewer, as whom one begins to ask at this time. */
function atAnotherTime({ definition }: Copy, now: SweptViewer, time: number): SweptViewer {
  let ahead: number | undefined;
  const clockAhead = (): number => (ahead ??= time - Date.now());
  const { timeZone } = definition;
  const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeStyle: 'short', timeZone });
  return {
    ...now,
    name: `${now.name}, on ${when.format(time)}`,
    sort: 'at another time',
    besides: now.access,
    clockAhead,
    access: (moment) => now.access(moment + clockAhead()),
  };
}

/** Where something asks of the clock, or of the session: new is who gets something else there than before, as nobody did. */
class Otherwise {
  private readonly seen = new Set<Id>();
  private readonly asking: readonly Id[];

  constructor(
    definition: Definition,
    of: 'clock' | 'session',
    private readonly records: Already,
    private readonly whole: boolean,
  ) {
    this.asking = askingOf(definition, of);
  }

  /** Does somebody get something else then, where something asks of it? */
  differs(before: Access, other: Access): boolean {
    return this.differing(before, [other]).length > 0;
  }

  private differing(before: Access, others: readonly Access[]): Id[] {
    const gets = (access: Access, id: Id): string => {
      const element = [access.element(id)];
      return this.records.decidingAt(access, element, element).join();
    };
    return this.asking.filter((id) => others.some((one) => gets(one, id) !== gets(before, id)));
  }

  isNew(before: Access, others: readonly Access[]): boolean {
    const differ = this.differing(before, others);
    const isNew = differ.some((id) => !this.seen.has(id));
    for (const id of differ) this.seen.add(id);
    return isNew || (this.whole && differ.length > 0);
  }
}

/** A value of each session value: what a button or opening a screen sets it to, where one does. */
function sessionSet(definition: Definition): Values {
  const set: Record<string, Value> = {};
  for (const element of compile(definition).tree.elements) {
    const { kind, node } = element;
    const presses = kind === 'button' && node.effect.do === 'set-session' ? [node.effect] : [];
    for (const { value, to } of kind === 'screen' ? (node.sets ?? []) : presses)
      if (to !== null) set[value] ??= to;
  }
  return set;
}
