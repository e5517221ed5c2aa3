import { accessOf } from '@/core/access/deciding/access';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/deciding/compile';
import { groupSimilarPeople } from '@/core/access/questions/alike';
import { allAlike, Numbers } from '@/core/access/questions/numbers';
import { seenOf } from '@/core/access/deciding/level';
import { resolve } from '@/core/access/sent/resolve';
import {
  counts,
  isKind,
  SIGNED_IN,
  SIGNED_OUT,
  viewerOfGroup,
  viewerOfPerson,
  viewerOfRole,
  type Person,
  type Viewer,
} from '@/core/access/deciding/viewer';
import type { Condition } from '@/core/condition/condition';
import { amongInShort, amongInWords } from '@/core/edit/comparing/words';
import type { Definition } from '@/core/model/definition';
import type { Line, What, Who } from '@/core/model/gate';
import type { Values } from '@/core/model/value-type';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawCircumstances, drawDefinition, drawSomebody, drawViewer, PEOPLE } from './arbitrary';

const AT = { moment: Date.UTC(2026, 10, 25, 12) };
const line = (who: Who, what: What, when?: Condition): Line => ({
  id: `${what} ${JSON.stringify(who)}`.replaceAll(/\W/g, '').slice(0, 30),
  who,
  what,
  ...(when && { when }),
});
const withGate = (id: string, ...lines: Line[]): Definition => ({
  ...LARKFIELD,
  gates: { ...LARKFIELD.gates, [id]: { lines } },
});
const everyone: Who = { kind: 'everyone' };
const registrar: Who = { kind: 'role', role: 'registrar' };
const mine: Condition = { compare: '=', left: { user: 'email' }, right: { value: 'ada@x.example' } };
const lender: Condition = { compare: '=', left: { record: 'item_lender_email' }, right: { user: 'email' } };
const atHome: Condition = { inUnit: { record: 'item_branch' }, unit: { user: 'home_unit' } };
const stock: Condition = { compare: '=', left: { session: 'sv_stock' }, right: { value: true } };

describe('a kind of viewer', () => {
  it('is a bare role, a group, or whoever is signed in; nobody else', () => {
    expect([SIGNED_IN, viewerOfRole('lender'), viewerOfGroup('g_trained')].map(isKind)).toEqual([
      true,
      true,
      true,
    ]);
    expect(isKind(SIGNED_OUT)).toBe(false);
    expect(isKind({ kind: 'signed-in', assignments: [], attributes: {} })).toBe(false);
  });

  // What the lines of one screen give; the application's gate lets everybody in.
  it.each<[string, Line[], Viewer, [number, number]]>([
    ['an attribute that is asked for', [line(everyone, 'edit', mine)], SIGNED_IN, [0, 2]],
    ['the same, turned round', [line(everyone, 'edit', { not: mine })], SIGNED_IN, [0, 2]],
    ['whether it is empty', [line(everyone, 'edit', { empty: { user: 'email' } })], SIGNED_IN, [0, 2]],
    ['a session value', [line(registrar, 'see', stock)], viewerOfRole('registrar'), [0, 1]],
    [
      'a block that hits some',
      [line(everyone, 'edit'), line(everyone, 'block', mine)],
      viewerOfRole('lender'),
      [0, 2],
    ],
    [
      'a cap that hits some',
      [line(everyone, 'edit'), line(everyone, 'at-most-see', stock)],
      SIGNED_IN,
      [1, 2],
    ],
    ['see for all, edit for some', [line(everyone, 'see'), line(everyone, 'edit', mine)], SIGNED_IN, [1, 2]],
    ['a home in a unit', [line({ kind: 'unit', unit: 'mill-annexe' }, 'edit')], SIGNED_IN, [0, 2]],
    [
      'a group whose condition asks who one is',
      [line({ kind: 'group', group: 'g_trained' }, 'see')],
      SIGNED_IN,
      [0, 1],
    ],
    [
      'that very group',
      [line({ kind: 'group', group: 'g_trained' }, 'see')],
      viewerOfGroup('g_trained'),
      [1, 1],
    ],
    [
      'a person who is named: nobody in particular',
      [line({ kind: 'person', person: 'ada' }, 'edit')],
      SIGNED_IN,
      [0, 0],
    ],
    ['roles, which are known', [line(registrar, 'edit')], viewerOfRole('volunteer'), [0, 0]],
    ['roles with what they include', [line(registrar, 'edit')], viewerOfRole('head'), [2, 2]],
    ['who is signed out: no attributes, so in doubt', [line(everyone, 'edit', mine)], SIGNED_OUT, [0, 0]],
    [
      'two that can never both hold: told by their form',
      [line(everyone, 'edit', { all: [mine, { not: mine }] })],
      SIGNED_IN,
      [0, 2],
    ],
  ])('has least and most: %s', (_, lines, viewer, [least, most]) => {
    const access = accessOf(compile(withGate('s_stores', ...lines)), viewer, AT);
    expect(access.answer(access.element('s_stores'))).toEqual({ least, most });
  });

  it.each<[string, Condition, Values, [number, number]]>([
    ['a record with a lender', lender, { item_lender_email: 'ada@x.example' }, [0, 2]],
    ['a record without one: in doubt, whoever it is', lender, {}, [0, 0]],
    ['a record in a branch', atHome, { item_branch: 'mill-annexe' }, [0, 2]],
    ['a record in none', atHome, { item_branch: null }, [0, 0]],
  ])('differs on a record too: %s', (_, when, values, [least, most]) => {
    const access = accessOf(compile(withGate('s_item', line(everyone, 'edit', when))), SIGNED_IN, AT);
    const entity = LARKFIELD.entities[0];
    if (!entity) throw new Error('No items');
    expect(access.answerOn(access.element('s_item'), { entity, values })).toEqual({ least, most });
  });

  it('is sent what all of its people get, and nothing that only some do', () => {
    const access = accessOf(compile(LARKFIELD), viewerOfRole('lender'), AT);
    const screen = access.compiled.tree.need('s_piece', 'screen').node;
    const entity = LARKFIELD.entities[0];
    if (!entity) throw new Error('No items');
    const record = { id: 'ewer', entity, values: { item_lender_email: 'ada@x.example', item_title: 'Ewer' } };
    expect(resolve(access, screen, record)).toBeUndefined();
    expect(resolve(access.most, screen, record)?.heading).toBe('Ewer');
  });

  it('has what is set in its session as known, and the rest as not known yet', () => {
    const gate = compile(withGate('s_stores', line(everyone, 'edit', stock)));
    const with_ = (session: Values) => {
      const access = accessOf(gate, SIGNED_IN, { ...AT, session });
      return access.answer(access.element('s_stores'));
    };
    expect(with_({ sv_stock: true })).toEqual({ least: 2, most: 2 });
    expect(with_({ sv_stock: false })).toEqual({ least: 0, most: 0 });
    expect(with_({})).toEqual({ least: 0, most: 2 });
  });
});

describe('whatever the time, and whatever the session holds', () => {
  it('has a least and a most, and everything that anybody ever gets lies between them', () => {
    let between = 0;
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const any = compile(drawDefinition(draw));
        const [viewer, at] = [drawViewer(draw), drawCircumstances(draw)];
        const now = accessOf(any, viewer, at);
        const ever = accessOf(any, viewer, { moment: at.moment, whenever: true });
        for (const element of any.tree.elements) {
          const [is, range] = [now.answer(element), ever.answer(element)];
          expect(range.least).toBeLessThanOrEqual(is.least);
          expect(range.most).toBeGreaterThanOrEqual(is.most);
          if (range.most - range.least > is.most - is.least) between++;
        }
      }),
    );
    expect(between).toBeGreaterThan(10);
  });
});

describe('the numbers of real people have access', () => {
  const person = (id: string, roles: Person['assignments'], more: Partial<Person> = {}): Person => ({
    id,
    name: id,
    active: true,
    assignments: roles,
    attributes: { name: id, email: `${id}@x.example`, home_unit: null },
    ...more,
  });
  const people = [
    person('ada', [{ role: 'lender' }]),
    person('bo', [{ role: 'lender' }]),
    person('cy', [{ role: 'lender' }, { role: 'registrar' }]),
    person('di', [{ role: 'lender', until: '2026-01-01T00:00:00Z' }]),
    person('ed', [{ role: 'lender' }], { active: false }),
    person('fay', [{ role: 'volunteer' }]),
  ];
  const definition = withGate(
    's_stores',
    line({ kind: 'role', role: 'lender' }, 'see', mine),
    line(registrar, 'edit'),
  );
  const compiled = compile(definition);
  const numbers = new Numbers(compiled, groupSimilarPeople(definition, people, AT), AT);
  const stores = compiled.tree.need('s_stores', 'screen');

  it('are of those who hold it now and may sign in', () => {
    const keys = ['role:lender', 'signed-in', 'signed-out', 'role:gone'];
    expect(keys.map((key) => numbers.countOf(key))).toEqual([3, 5, 0, 0]);
  });

  it('agree with what each of them gets', () => {
    const among = numbers.among('role:lender', stores);
    expect(among).toEqual({ edit: 1, see: 1, of: 3 });
    const active = people.filter((one) => one.active);
    for (const [key, of] of [
      ['signed-in', active],
      ['role:lender', active.slice(0, 3)],
      ['role:volunteer', active.slice(-1)],
    ] as const) {
      const levels = of.map((one) => {
        const access = accessOf(compiled, viewerOfPerson(one), AT);
        return access.answer(access.element('s_stores')).most;
      });
      expect(numbers.among(key, stores)).toEqual({
        edit: levels.filter((level) => level === 2).length,
        see: levels.filter((level) => level === 1).length,
        of: levels.length,
      });
    }
    expect(numbers.among('role:curator', stores)).toBeUndefined();
  });

  it('are of a group by what it asks, also where no line asks it', () => {
    const asks: Definition = {
      ...definition,
      groups: [{ id: 'g_ada', name: 'Ada', condition: mine }],
    };
    expect(new Numbers(compile(asks), groupSimilarPeople(asks, people, AT), AT).countOf('group:g_ada')).toBe(
      1,
    );
  });

  it('are what counting one by one gives, whatever the definition and the people', () => {
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const any = compile(drawDefinition(draw));
        const at = drawCircumstances(draw);
        const some = Array.from({ length: 8 }, (_, n): Person => {
          const drawn = drawSomebody(draw);
          const roles = drawn.kind === 'signed-in' ? drawn.assignments : [];
          const attributes = drawn.kind === 'signed-in' ? drawn.attributes : undefined;
          const more = { active: draw.chance(80), ...(attributes && { attributes }) };
          return person(draw.chance(50) ? draw.one(PEOPLE) : `p${n}`, roles, more);
        });
        const counted = new Numbers(any, groupSimilarPeople(any.definition, some, at), at);
        const element = draw.one(any.tree.elements);
        const keys = ['signed-in', ...any.definition.roles.map(({ id }) => `role:${id}`)];
        for (const key of keys) {
          const of = some.filter(
            (one) =>
              one.active &&
              (key === 'signed-in' ||
                one.assignments.some((given) => `role:${given.role}` === key && counts(given, at.moment))),
          );
          const levels = of.map((one) => accessOf(any, viewerOfPerson(one), at).answer(element));
          const most = levels.map((level) => seenOf(element.kind, level).most);
          expect(counted.among(key, element)).toEqual(
            of.length === 0
              ? undefined
              : {
                  edit: most.filter((level) => level === 2).length,
                  see: most.filter((level) => level === 1).length,
                  of: of.length,
                },
          );
          const two = counted.oneOfEach(key, element);
          const differ = new Set(levels.map(({ least, most: high }) => `${least}${high}`)).size > 1;
          expect(two !== undefined).toBe(differ);
        }
      }),
    );
  });

  it('are told in words, long and short', () => {
    const among = { edit: 1, see: 2, of: 7 };
    expect(amongInWords('screen', among)).toBe('edit for 1, read-only for 2 of 7');
    expect(amongInShort('screen', among)).toBe('edit 1 of 7');
    expect(amongInWords('button', { edit: 0, see: 0, of: 3 })).toBe('none for all of 3');
    expect([among, { edit: 3, see: 0, of: 3 }, { edit: 0, see: 0, of: 3 }].map(allAlike)).toEqual([
      false,
      true,
      true,
    ]);
  });

  it('name one who gets it and one who does not', () => {
    expect(numbers.oneOfEach('role:lender', stores)).toEqual({
      most: { id: 'cy', name: 'cy' },
      least: { id: 'bo', name: 'bo' },
    });
    expect(numbers.oneOfEach('role:volunteer', stores)).toBeUndefined();
  });
});
