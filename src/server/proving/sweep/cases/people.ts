import { EDIT, HandingOut, NONE } from '@/core/access';
import { compile } from '@/core';
import type { AppElement } from '@/core/model';
import { personOfCopy } from '../copy';
import { type SweepContext, base, type Case, ofEachSort } from './case';

/** Looking after people, standing in for them, and joining roles; but for what would send a message. */
export function* people(asked: SweepContext): Generator<Case> {
  const { access, self, predictor, copy } = asked;
  const own = self === undefined ? undefined : copy.people[self]?.person.id;
  const parts = peopleParts(asked);
  const handed = [...new HandingOut(access.held, '').roles.keys()];
  for (const cases of [lookingAfter, standingIn, joining])
    for (const one of cases(asked)) {
      const { asking } = one;
      const topic = JSON.stringify([
        self === undefined,
        predictor.standsIn,
        handed,
        asking,
        'refused' in one,
      ]);
      yield* asked.once(own === undefined ? topic : topic.replaceAll(own, 'oneself'), parts, parts, () => [
        one,
      ]);
    }
}

const peopleParts = ({ copy }: SweepContext): AppElement[] =>
  compile(copy.definition).tree.elements.filter(({ kind }) => kind === 'people');

function* lookingAfter(asked: SweepContext): Generator<Case> {
  const { copy, access, self, predictor } = asked;
  const all = copy.people.map(personOfCopy);
  const me = self === undefined ? undefined : all[self];
  const level = Math.max(NONE, ...peopleParts(asked).map((part) => access.level(part, undefined)));
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
  const works = me !== undefined && level === EDIT;
  const ofSorts = ofEachSort(asked, all, (person) =>
    [
      person.active,
      works && person.id === me.id,
      works && handing.mayLookAfter(person),
      works && handing.holdsNoMore(person),
      works && handing.mayReaddress(person),
    ].join(),
  );
  for (const person of ofSorts) {
    const mine = works && handing.mayLookAfter(person);
    const free = mine && handing.holdsNoMore(person);
    const change = (body: unknown) => ({ method: 'PATCH', path: `${path}/${person.id}`, body });
    if (free && person.active)
      yield {
        asking: change({ active: false }),
        does: { by: predictor },
        then: [{ asking: change({ active: true }), does: { by: predictor } }],
      };
    if (!free) {
      yield { asking: change({ active: !person.active }), refused: true };
      yield { asking: { method: 'POST', path: `${path}/${person.id}/link` }, refused: true };
      yield { asking: { method: 'DELETE', path: `${path}/${person.id}/waits` }, refused: true };
    }
    if (!mine || !handing.mayReaddress(person))
      yield { asking: change({ email: 'swept@sweep.example' }), refused: true };
    if (!mine || handing.notToBeSet(['home_unit']).length > 0)
      yield { asking: change({ homeUnit: null }), refused: true };
    for (const one of person.assignments)
      if (!mine || !handing.mayHandOut(one)) yield { asking: change({ take: [one] }), refused: true };
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

function* standingIn({ copy, predictor, self }: SweepContext): Generator<Case> {
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

function* joining({ copy, self, predictor }: SweepContext): Generator<Case> {
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
