import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accessOf } from '@/core/access/deciding/access';
import { compile } from '@/core/access/deciding/compile';
import { viewerOfPerson, type Person, type Viewer } from '@/core/access/deciding/viewer';
import { groupSimilarPeople, askedOfPeople } from '@/core/access/questions/alike';
import type { Condition } from '@/core/condition/condition';
import type { Definition } from '@/core/model/definition';
import type { Who } from '@/core/model/gate';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawCircumstances, drawDefinition, drawSomebody, PEOPLE } from './arbitrary';

const AT = { moment: Date.UTC(2026, 10, 25, 12) };
const person = (id: string, more: Partial<Person> = {}): Person => ({
  id,
  name: id,
  active: true,
  assignments: [{ role: 'lender' }],
  attributes: { name: id, email: `${id}@x.example`, home_unit: null },
  ...more,
});
const asking = (who: Who, when?: Condition): Definition => ({
  ...LARKFIELD,
  groups: [],
  conditions: [],
  areas: [],
  menu: { id: 'menu', items: [] },
  gates: { [LARKFIELD.id]: { lines: [{ id: 'l', who, what: 'see', ...(when && { when }) }] } },
});
const lender: Who = { kind: 'role', role: 'lender' };
const email = { user: 'email' };
const ada = { value: 'ada@x.example' };
const record = { record: 'item_lender_email' };

describe('people who are alike', () => {
  const two = [person('ada'), person('bo')];
  it.each<[string, Definition, readonly Person[], number[]]>([
    ['by their roles', asking(lender), two, [2]],
    ['not who is switched off', asking(lender), [person('ada'), person('bo', { active: false })], [1]],
    [
      'by the roles that count now',
      asking(lender),
      [
        person('ada', { assignments: [{ role: 'lender', until: '2020-01-01T00:00:00Z' }] }),
        person('bo', { assignments: [] }),
      ],
      [2],
    ],
    ['not one whom a line names', asking({ kind: 'person', person: 'bo' }), two, [1, 1]],
    [
      'whatever a record is compared with',
      asking(lender, { compare: '=', left: record, right: email }),
      two,
      [2],
    ],
    [
      'but not who has nothing to compare',
      asking(lender, { compare: '=', left: record, right: email }),
      [person('ada'), person('bo', { attributes: { email: null } })],
      [1, 1],
    ],
    [
      'nor one of whom two values are the same',
      asking(lender, {
        all: [
          { compare: '=', left: record, right: email },
          { compare: '=', left: record, right: { user: 'name' } },
        ],
      }),
      [person('ada'), person('bo', { attributes: { name: 'Bo@X', email: 'bo@x' } })],
      [1, 1],
    ],
    [
      'by the answer to a question',
      asking(lender, { compare: '=', left: email, right: ada }),
      [...two, person('cy')],
      [1, 2],
    ],
    [
      'by the unit itself, where a record’s is within it',
      asking(lender, { inUnit: { record: 'item_branch' }, unit: { user: 'home_unit' } }),
      [
        person('ada', { attributes: { home_unit: 'main-hall' } }),
        person('bo', { attributes: { home_unit: 'mill-annexe' } }),
      ],
      [1, 1],
    ],
  ])('%s', (_name, definition, people, counts) => {
    expect(groupSimilarPeople(definition, people, AT).map(({ count }) => count)).toEqual(counts);
  });

  it('are told without what is not asked, and without who they are', () => {
    const [first] = groupSimilarPeople(
      asking(lender, { compare: '=', left: email, right: ada }),
      [person('ada')],
      AT,
    );
    expect(first).toEqual({
      viewer: {
        kind: 'signed-in',
        assignments: [{ role: 'lender' }],
        attributes: { email: 'ada@x.example' },
      },
      count: 1,
      some: [{ id: 'ada', name: 'ada' }],
    });
  });

  it('are told apart by who they are where that is asked for', () => {
    const definition = asking(lender);
    const asked = askedOfPeople(definition, ['bo']);
    const viewers = groupSimilarPeople(definition, two, AT, asked).map(({ viewer }) => viewer);
    expect(viewers.map((one) => one.kind === 'signed-in' && one.person)).toEqual([undefined, 'bo']);
  });

  it('get the same of everything, whatever the definition', () => {
    let several = 0;
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const definition = drawDefinition(draw);
        const compiled = compile(definition);
        const { moment } = drawCircumstances(draw);
        const people = Array.from({ length: 12 }, (_, n): Person => {
          const drawn = drawSomebody(draw);
          const is = drawn.kind === 'signed-in' ? drawn : undefined;
          return person(PEOPLE[n] ?? `p${n}`, {
            assignments: is?.assignments.slice(0, 1) ?? [],
            ...(is?.attributes && { attributes: is.attributes }),
          });
        });
        const levels = (viewer: Viewer): string => {
          const access = accessOf(compiled, viewer, { moment });
          return compiled.tree.elements.map((one) => JSON.stringify(access.answer(one))).join();
        };
        for (const { viewer, count, some } of groupSimilarPeople(definition, people, { moment })) {
          if (count > 1) several++;
          const these = people.filter(({ id }) => some.some((one) => one.id === id));
          for (const one of these) expect(levels(viewerOfPerson(one))).toBe(levels(viewer));
        }
      }),
    );
    expect(several).toBeGreaterThan(50);
  });
});
