import { EDIT, HandingOut, NONE } from '@/core/access';
import { compile } from '@/core';
import { personOfCopy } from '../copy';
import { type Asked, base, type Case } from './case';

/** Looking after people, standing in for them, and joining roles; but for what would send a message. */
export function* people(asked: Asked): Generator<Case> {
  yield* lookingAfter(asked);
  yield* standingIn(asked);
  yield* joining(asked);
}

function* lookingAfter(asked: Asked): Generator<Case> {
  const { copy, access, self, predictor } = asked;
  const all = copy.people.map(personOfCopy);
  const me = self === undefined ? undefined : all[self];
  const parts = compile(copy.definition).tree.elements.filter(({ kind }) => kind === 'people');
  const level = Math.max(NONE, ...parts.map((part) => access.level(part, undefined)));
  const path = `${base(copy)}/api/people`;
  const handing = new HandingOut(access.held, me?.id ?? '');
  const roles = copy.definition.roles.map(({ id }) => id);
  const made = { name: 'Swept', email: 'swept@sweep.example' };
  if (!me || level === NONE) {
    yield { asking: { path }, refused: true };
    yield { asking: { method: 'POST', path, body: made }, refused: true };
  } else {
    const units = handing.units();
    const there = all.flatMap(({ attributes }, n) =>
      units === undefined || units.has(String(attributes['home_unit'])) ? [n] : [],
    );
    yield { asking: { path }, reads: 'part', predicted: predictor.people(there) };
    const given = roles.find((role) => !handing.mayHandOut({ role }));
    const assignments = given === undefined ? undefined : [{ role: given }];
    if (assignments)
      yield { asking: { method: 'POST', path, body: { ...made, assignments } }, refused: true };
  }
  for (const person of all.slice(0, 2)) {
    const mine = me !== undefined && level === EDIT && handing.mayLookAfter(person);
    const free = mine && handing.holdsNoMore(person);
    const change = (body: unknown) => ({ method: 'PATCH', path: `${path}/${person.id}`, body });
    if (free && person.active)
      yield {
        asking: change({ active: false }),
        does: { by: predictor },
        then: [{ asking: change({ active: true }), does: { by: predictor } }],
      };
    if (!free) {
      yield { asking: change({ active: false }), refused: true };
      yield { asking: { method: 'POST', path: `${path}/${person.id}/link` }, refused: true };
      yield { asking: { method: 'DELETE', path: `${path}/${person.id}/waits` }, refused: true };
    }
    for (const role of roles) {
      const holds = person.assignments.some((one) => one.role === role);
      if (!mine || !handing.mayHandOut({ role }))
        yield { asking: change({ give: [{ role }] }), refused: true };
      else if (!holds) {
        const does = { by: predictor };
        yield {
          asking: change({ give: [{ role }] }),
          does,
          then: [{ asking: change({ take: [{ role }] }), does }],
        };
      }
    }
  }
}

function* standingIn({ copy, predictor, self }: Asked): Generator<Case> {
  const path = `${base(copy)}/api/stand-in`;
  const who = copy.people.find((_, n) => n !== self)?.person.id;
  const begin = { method: 'POST', path, body: { person: who } };
  if (!predictor.standsIn) {
    yield { asking: { path }, refused: true };
    yield { asking: begin, refused: true };
    return;
  }
  yield { asking: { path }, tells: 'what may be known' };
  if (self === undefined) return;
  const does = { by: predictor };
  yield { asking: begin, does, then: [{ asking: { method: 'DELETE', path }, does }] };
}

function* joining({ copy, self, predictor }: Asked): Generator<Case> {
  const held = self === undefined ? [] : (copy.people[self]?.person.assignments ?? []);
  for (const { id: about, joinable } of copy.definition.roles) {
    const path = `${base(copy)}/api/account/roles/${about}`;
    const [join, leave] = [
      { method: 'PUT', path },
      { method: 'DELETE', path },
    ];
    if (self === undefined || !joinable) {
      yield { asking: join, refused: true, about };
      yield { asking: leave, refused: true, about };
    } else if (!held.some(({ role }) => role === about)) {
      const does = { by: predictor };
      yield { asking: join, does, then: [{ asking: leave, does, about }], about };
    }
  }
}
