import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accessOf, compile, difference, viewerOfPerson } from '@/core';
import { counts, type Circumstances } from '@/core/access/deciding/viewer';
import type { KnownRecord } from '@/core/access/sent/resolve';
import { kindsOf, sameAnswer, type Answer, type Person } from '@/core/access';
import { changeInWords, type Edit, personChangeInWords } from '@/core/edit';
import { editBetween } from '@/core/edit/edits/between';
import { type Definition, treeOf } from '@/core/model';
import {
  canonicalJson,
  causesOf,
  changedCells,
  changedPeople,
  gains,
  otherwiseBetween,
  type AccessSnapshot,
} from '@/core/signing';
import { LARKFIELD } from '@/demo/definition';
import {
  Draw,
  drawCircumstances,
  drawDefinition,
  drawLine,
  drawRecord,
  drawSomebody,
  PEOPLE,
} from './arbitrary';
import { allSteps } from '@/core/steps';
import { found, runs } from '../runs';

/** Assignments begin or end on the first of June. */
const [MOMENT, LATER] = [Date.UTC(2026, 4, 15, 11), Date.UTC(2026, 5, 15, 11)];

/** The same people at another time: some have other roles, one may be gone, one may have come. */
const drawPeople = (draw: Draw): Person[] =>
  PEOPLE.flatMap((id): Person[] => {
    const who = drawSomebody(draw);
    if (who.kind === 'signed-out') return [];
    const { assignments, attributes = {} } = who;
    return [{ id, name: id, active: draw.chance(85), assignments, attributes }];
  });

const manyPeople = (n: number): Person[] =>
  Array.from({ length: n }, (_, id) => ({
    id: String(id),
    name: `Person ${id}`,
    active: true,
    assignments: [{ role: 'volunteer' }],
    attributes: {},
  }));

/** Other lines somewhere; once in a while all is another. */
function drawNext(draw: Draw, before: Definition): Definition {
  if (draw.chance(8)) return { ...drawDefinition(draw), id: before.id };
  const gates = { ...before.gates };
  const tree = treeOf(before);
  for (const element of draw.some(tree.elements, 10))
    gates[element.id] = { lines: draw.many(2, () => drawLine(draw, tree.recordOf(element))) };
  return { ...before, gates };
}

/** What somebody gets, asked one by one; of what is not there, nothing. */
function plainly({ definition, people, moment }: AccessSnapshot, viewer: string, element: string): Answer {
  const person = people.find(({ id }) => viewer === `person:${id}`);
  const who = person ? viewerOfPerson(person) : kindsOf(definition).find(({ key }) => key === viewer)?.viewer;
  const compiled = compile(definition);
  const found = compiled.tree.get(element);
  if (!who || !found) return { least: 0, most: 0 };
  return accessOf(compiled, who, { moment, whenever: true }).answer(found);
}

/** What a viewer has of every element on these records; nothing, where they are not there. */
function levelsOf(
  { definition, people }: AccessSnapshot,
  viewer: string,
  at: Circumstances,
  records: readonly KnownRecord[],
): ReadonlyMap<string, number> {
  const person = people.find(({ id }) => viewer === `person:${id}`);
  const who = person ? viewerOfPerson(person) : kindsOf(definition).find(({ key }) => key === viewer)?.viewer;
  const compiled = compile(definition);
  if (!who) return new Map(compiled.tree.elements.map(({ id }) => [id, 0]));
  const access = accessOf(compiled, who, at);
  return new Map(
    compiled.tree.elements.map((element) => {
      const [on, around] = [compiled.tree.recordOf(element)?.id, element.screen?.binds?.entity].map((id) =>
        records.find(({ entity }) => entity.id === id),
      );
      return [element.id, access.level(element, on, around)] as const;
    }),
  );
}

interface Story {
  readonly before: AccessSnapshot;
  readonly after: AccessSnapshot;
  readonly revisions: readonly { revision: number; edit: Edit; made: Definition }[];
}

function drawStory(draw: Draw): Story {
  const before = { definition: drawDefinition(draw), people: drawPeople(draw), moment: MOMENT };
  const revisions: { revision: number; edit: Edit; made: Definition }[] = [];
  let { definition } = before;
  for (let n = 0; n < 4; n++) {
    const made = drawNext(draw, definition);
    const edit = editBetween(definition, made);
    if (!edit) continue;
    revisions.push({ revision: 10 + n, edit, made });
    definition = made;
  }
  return {
    before,
    after: {
      definition,
      people: draw.chance(50) ? before.people : drawPeople(draw),
      moment: draw.one([MOMENT, LATER]),
    },
    revisions,
  };
}

describe('what differs from what was signed off', () => {
  it('is every answer that is another one, for everybody there is or was, and nothing else', () => {
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const { before, after } = drawStory(new Draw(value));
        const { cells, gained, lost } = allSteps(changedCells(before, after, Infinity));
        const byKey = new Map(cells.map((cell) => [`${cell.viewer} ${cell.element}`, cell]));
        const sides = [before, after];
        const viewers = sides.flatMap(({ definition, people }) => [
          ...kindsOf(definition).map(({ key }) => key),
          ...people.map(({ id }) => `person:${id}`),
        ]);
        const elements = sides.flatMap(({ definition }) => treeOf(definition).elements.map(({ id }) => id));
        for (const viewer of new Set(viewers))
          for (const element of new Set(elements)) {
            const [was, is] = [plainly(before, viewer, element), plainly(after, viewer, element)];
            const cell = byKey.get(`${viewer} ${element}`);
            expect(cell !== undefined).toBe(!sameAnswer(was, is));
            if (cell) expect(cell).toMatchObject({ before: was, after: is });
          }
        expect(gained).toBe(cells.filter(gains).length);
        expect(gained + lost).toBe(cells.length);
        const few = allSteps(changedCells(before, after, 3));
        expect(few).toMatchObject({ cells: cells.slice(0, 3), gained, lost });
      }),
      { numRuns: runs(30), endOnFailure: true },
    );
  });

  it('was made by the last edit that changed it, by the change of the person, or by both where neither was enough', () => {
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const { before, after, revisions } = drawStory(new Draw(value));
        const { cells } = allSteps(changedCells(before, after, Infinity));
        const causes = allSteps(causesOf(before, after, revisions, cells));
        for (const cell of cells.slice(0, 60)) {
          const answer = (definition: Definition, of: AccessSnapshot): Answer =>
            plainly({ ...of, definition }, cell.viewer, cell.element);
          const { edit, person } = causes.get(cell) ?? {};
          const [editsDo, personDoes] = [
            answer(after.definition, before),
            answer(before.definition, after),
          ].map((one) => sameAnswer(one, cell.after));
          expect(person !== undefined).toBe(!editsDo);
          if (person) expect(person.says).not.toBe('');
          expect(edit !== undefined).toBe(editsDo || !personDoes);
          if (!edit) continue;
          const at = revisions.findIndex(({ revision }) => revision === edit.revision);
          const along = [before.definition, ...revisions.map(({ made }) => made)];
          const [last, ...later] = along.slice(at).map((one) => answer(one, person ? after : before));
          expect(last).not.toEqual(cell.after);
          for (const one of later) expect(one).toEqual(cell.after);
          const [was, is] = along.slice(at, at + 2) as [Definition, Definition];
          const [about] = difference(was, is).map((one) => changeInWords(one, was, is, (id) => id).about);
          expect(edit.says.startsWith(about ?? 'nothing')).toBe(true);
        }
      }),
      { numRuns: runs(30), endOnFailure: true },
    );
  });

  it('tells of everything that is answered otherwise on some record, at some time, in some session', () => {
    let differing = 0;
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const { before, after } = drawStory(draw);
        const { isChanged } = allSteps(changedCells(before, after, 0));
        const otherwise = allSteps(otherwiseBetween(before, after, isChanged));
        const changed = new Set(changedPeople(before, after).map(([, { id }]) => `person:${id}`));
        // Who came and who is gone is told by itself.
        const isOnce = (viewer: string): boolean =>
          [before, after].filter(({ people }) => people.some(({ id }) => viewer === `person:${id}`))
            .length === 1;
        const isTold = (viewer: string, element: string): boolean =>
          changed.has(viewer) ||
          isOnce(viewer) ||
          isChanged(viewer, element) ||
          otherwise.some((one) => one.element === element && one.who.includes(viewer));
        const records = after.definition.entities.map((one) => drawRecord(draw, after.definition, one));
        const keys = [
          ...kindsOf(after.definition).map(({ key }) => key),
          ...PEOPLE.map((id) => `person:${id}`),
        ];
        for (const at of draw.many(4, () => drawCircumstances(draw), 2))
          for (const viewer of keys) {
            // What roles give that are not counted yet, or no more, is told of the roles.
            const theirs = after.people.find(({ id }) => viewer === `person:${id}`)?.assignments ?? [];
            if (theirs.some((one) => counts(one, at.moment) !== counts(one, after.moment))) continue;
            const [was, is] = [before, after].map((side) => levelsOf(side, viewer, at, records));
            for (const [element, level] of is ?? []) {
              if (level === (was?.get(element) ?? 0)) continue;
              differing++;
              expect([viewer, element, isTold(viewer, element)]).toEqual([viewer, element, true]);
            }
          }
      }),
      { numRuns: runs(30), endOnFailure: true },
    );
    expect(differing).toBeGreaterThan(found(2000));
  });

  it('tells that a period is over, and of what it gave', () => {
    const people: Person[] = [
      {
        id: 'wren',
        name: 'Wren',
        active: true,
        assignments: [{ role: 'curator', until: '2026-06-01T00:00:00Z' }],
        attributes: {},
      },
    ];
    const before = { definition: LARKFIELD, people, moment: MOMENT };
    const after = { ...before, moment: LATER };
    const { cells, lost } = allSteps(changedCells(before, after, 1));
    expect(lost).toBeGreaterThan(10);
    const [cause] = [...allSteps(causesOf(before, after, [], cells)).values()];
    expect(cause?.person?.says).toBe('no longer has Curator, until 1 Jun 2026');
    expect(changedPeople(before, after)).toHaveLength(1);
    expect(changedPeople(before, before)).toHaveLength(0);
  });

  it('is told step by step, up to the last', () => {
    const after = { definition: LARKFIELD, people: manyPeople(500), moment: MOMENT };
    const before = { ...after, people: [] };
    const told = [...changedCells(before, after, 1)];
    expect(told.length).toBeGreaterThan(2);
    expect(told.at(-1)?.done).toBe(told.at(-1)?.of);
  });
});

describe('what is otherwise with a person', () => {
  const wren: Person = {
    id: 'wren',
    name: 'Wren',
    active: true,
    assignments: [{ role: 'volunteer' }],
    attributes: { name: 'Wren', email: 'wren@larkfield.example', home_unit: 'main-hall' },
  };
  const until = '2026-12-01T12:00:00Z';
  it.each<[Partial<Person> | undefined, Partial<Person> | undefined, string]>([
    [{}, { assignments: [] }, 'lost Volunteer'],
    [
      {},
      { assignments: [{ role: 'keeper' }, { role: 'auditor' }] },
      'was assigned Keeper of accounts and Auditor, lost Volunteer',
    ],
    [
      {},
      { assignments: [{ role: 'volunteer', until }] },
      'was assigned Volunteer, until 1 Dec 2026, lost Volunteer',
    ],
    [{}, { active: false }, 'was disabled'],
    [{ active: false }, {}, 'was enabled'],
    [
      {},
      { attributes: { ...wren.attributes, home_unit: null, email: 'w@x.example' } },
      'now has a different Email and Home unit',
    ],
    [
      undefined,
      { assignments: [{ role: 'gone', unit: 'main-hall' }] },
      'was added with A deleted role in Main Hall',
    ],
    [undefined, { assignments: [] }, 'was added with no role'],
    [{}, undefined, 'was deleted'],
  ])('%o, then %o: %s', (before, after, says) => {
    const [was, is] = [before, after].map((one) => one && { ...wren, ...one });
    expect(personChangeInWords(LARKFIELD, was, is)).toBe(says);
  });
});

describe('what is signed as JSON', () => {
  // RFC 8785, section 3.2.2 and 3.2.3.
  it('is the same whatever the order of its keys, and as ECMAScript writes numbers and texts', () => {
    const value = { '\u20ac': 1, '\r': 2, '1': 3, '\ud83d\ude00': 4, '\u0080': 5, '\ufb33': 6 };
    expect(canonicalJson(value)).toBe('{"\\r":2,"1":3,"\u0080":5,"\u20ac":1,"\ud83d\ude00":4,"\ufb33":6}');
    expect(canonicalJson([1e30, 4.5, 2e-3, 333333333.3333333, '\u000f"\\'])).toBe(
      '[1e+30,4.5,0.002,333333333.3333333,"\\u000f\\"\\\\"]',
    );
    fc.assert(
      fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (one) => {
        const turned = Object.fromEntries(Object.entries(one).reverse());
        expect(canonicalJson(turned)).toBe(canonicalJson(one));
        expect(JSON.parse(canonicalJson(one))).toEqual(JSON.parse(JSON.stringify(one)));
      }),
      { numRuns: runs(200) },
    );
  });
});
