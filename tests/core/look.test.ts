import { accessOf, unsharedAccessOf } from '@/core/access/deciding/access';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cellOf, matrixOf, unpacked } from '@/core/access/questions/cells';
import { compile } from '@/core/access/deciding/compile';
import { differences, screensOfSome } from '@/core/access/questions/differences';
import { explain, type Since } from '@/core/access/questions/explain';
import type { Answer, Level } from '@/core/access/deciding/level';
import { ActingAccess } from '@/core/access/deciding/stand-in-access';
import { reachOf, whoGets } from '@/core/access/questions/reach';
import {
  SIGNED_OUT,
  viewerOfGroup,
  viewerOfPerson,
  viewerOfRole,
  type Viewer,
} from '@/core/access/deciding/viewer';
import { momentOf, readClock } from '@/core/condition/clock';
import { levelReaderFor } from '@/core/edit/proposing/aim';
import { applyEdit } from '@/core/edit/edits/apply';
import { copyGate, copyRole } from '@/core/edit/edits/copy';
import { smallestChange, type TargetLevel } from '@/core/edit/proposing/smallest-change';
import { lineInWords } from '@/core/edit/comparing/words';
import { changesData, type Definition, type Entity } from '@/core/model/definition';
import { sameLine } from '@/core/model/gate';
import { findElements } from '@/core/model/find';
import { LARKFIELD } from '@/demo/definition';
import { demoPeople } from '@/demo/people';
import { Draw, drawCircumstances, drawDefinition, drawRecord, drawViewer } from './arbitrary';
import { found, runs } from '../runs';

function everywhere(check: (draw: Draw) => void, numRuns = 100): void {
  fc.assert(
    fc.property(fc.gen(), (value) => check(new Draw(value))),
    { numRuns: runs(numRuns), endOnFailure: true },
  );
}

/** Wednesday, 10:00 in London. */
const WEDNESDAY = { moment: Date.UTC(2026, 10, 25, 10) };
const SUNDAY_EVENING = { moment: momentOf('2026-11-29T19:00', 'Europe/London') };
const PEOPLE = demoPeople().map((one, n) => ({
  ...one,
  id: `p${n}`,
  attributes: { ...one.attributes, name: one.name, email: one.email, home_unit: one.homeUnit },
}));
const person = (name: string): Viewer => {
  const found = PEOPLE.find((one) => one.name === name);
  if (!found) throw new Error(name);
  return viewerOfPerson(found);
};

describe('acting as another person', () => {
  it('gives on every element and record the lower of what both get', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const compiled = compile(definition);
      const at = drawCircumstances(draw);
      const [theirs, own] = [
        accessOf(compiled, drawViewer(draw), at),
        accessOf(compiled, drawViewer(draw), at),
      ];
      const both = new ActingAccess(theirs, own, false);
      const reading = new ActingAccess(theirs, undefined, true);
      for (const element of compiled.tree.elements) {
        const entity = compiled.tree.recordOf(element) ?? (definition.entities[0] as Entity);
        const record = drawRecord(draw, definition, entity);
        const level = (of: typeof theirs): Level => of.level(element, record, record);
        expect([element.id, level(both)]).toEqual([element.id, Math.min(level(theirs), level(own))]);
        expect(level(reading)).toBeLessThanOrEqual(level(theirs));
      }
    });
  });

  it('opens no door further than either, and for reading only none to be written through', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const compiled = compile(definition);
      const at = drawCircumstances(draw);
      const [theirs, own] = [
        accessOf(compiled, drawViewer(draw), at),
        accessOf(compiled, drawViewer(draw), at),
      ];
      const [both, reading] = [new ActingAccess(theirs, own, false), new ActingAccess(theirs, own, true)];
      for (const entity of definition.entities) {
        const most = (answer: Answer): Level => answer.most;
        const rows = compiled.tree.need(entity.id, 'rows');
        expect(most(both.answer(rows))).toBeLessThanOrEqual(most(own.answer(rows)));
        for (const field of entity.fields) {
          expect(reading.doors.field(field.id, 'existing').edit).toBe(false);
          expect(reading.doors.field(field.id, 'new').edit).toBe(false);
        }
        for (const action of entity.actions)
          if (changesData(action)) expect(reading.doors.action(action.id).edit).toBe(false);
      }
    });
  });
});

describe('the smallest change', () => {
  it('turns the answer on random definitions, or says that none can', () => {
    let turned = 0;
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const compiled = compile(definition);
      const [viewer, at] = [drawViewer(draw), drawCircumstances(draw)];
      const element = draw.one(compiled.tree.elements);
      const level = draw.one([0, 1, 2] as const);
      const wanted: TargetLevel = { element: element.id, viewer, level, at, naming: 'anybody' };
      const turn = smallestChange(definition, wanted, [SIGNED_OUT, drawViewer(draw)]);
      if (!turn) return;
      turned++;
      const made = applyEdit(definition, turn.edit);
      if (!made.ok) throw new Error(JSON.stringify(made.problems));
      const after = compile(made.value);
      const subject = after.tree.get(element.id) ?? element;
      const aim = levelReaderFor(accessOf(compiled, viewer, at), element, level);
      expect(aim(accessOf(after, viewer, at), subject)).toBe(level);
    }, 150);
    expect(turned).toBeGreaterThan(found(50));
  });

  const wordsOf = (
    viewer: Viewer,
    element: string,
    level: Level,
    naming: TargetLevel['naming'],
  ): string[] => {
    const everybody = PEOPLE.filter((one) => one.active).map(viewerOfPerson);
    const turn = smallestChange(LARKFIELD, { element, viewer, level, at: SUNDAY_EVENING, naming }, everybody);
    if (!turn) return ['none'];
    return turn.gates.flatMap((gate) => {
      const before = LARKFIELD.gates[gate]?.lines ?? [];
      return (turn.definition.gates[gate]?.lines ?? [])
        .filter((line) => !before.some((one) => sameLine(one, line)))
        .map((line) => `${gate}: ${lineInWords(line, gate, LARKFIELD, () => 'a person')}`);
    });
  };

  it.each<[string, Viewer, string, Level, TargetLevel['naming'], string[]]>([
    [
      'a role is named where it was not',
      viewerOfRole('curator'),
      'p_item_store',
      1,
      'roles',
      ['p_item_store: Curator: see'],
    ],
    [
      'a person, where persons may be named: nobody else gains',
      person('Ines Okafor'),
      'p_item_store',
      1,
      'anybody',
      ['p_item_store: a person: see'],
    ],
    [
      'a condition is taken off only where nothing narrower does',
      viewerOfRole('assistant'),
      'b_courier',
      2,
      'roles',
      ['b_courier: Assistant'],
    ],
    [
      'screen and field both, each with a line',
      viewerOfRole('keeper'),
      'p_item_store',
      1,
      'roles',
      ['s_item: Keeper of accounts: read', 'n_custody', 'p_item_store: Keeper of accounts: see'],
    ],
    [
      'what leads to a closed screen is opened by the screen',
      viewerOfRole('volunteer'),
      'm_loans',
      2,
      'roles',
      ['s_loans: Volunteer and above: read'],
    ],
    [
      'a field to edit, where saving is closed too',
      viewerOfRole('volunteer'),
      'p_item_title',
      2,
      'roles',
      ['s_item', 'n_description', 'b_save_item', 'p_item_title'],
    ],
    ['a signed-out viewer', SIGNED_OUT, 's_items', 1, 'anybody', ['s_items: Signed out: read']],
  ])('%s', (_, viewer, element, level, naming, expected) => {
    const words = wordsOf(viewer, element, level, naming);
    for (const one of words) expect(expected.some((wanted) => one.startsWith(wanted))).toBe(true);
    expect(words.length).toBeGreaterThan(0);
    expect(words).not.toEqual(['none']);
  });

  it('says that there is none where no button saves', () => {
    const unsaved: Definition = {
      ...LARKFIELD,
      areas: LARKFIELD.areas.map((area) => ({
        ...area,
        screens: area.screens.map((screen) => ({
          ...screen,
          sections: screen.sections.map((section) => ({
            ...section,
            parts: section.parts.filter((part) => part.kind !== 'button' || part.effect.do !== 'save'),
          })),
        })),
      })),
      gates: Object.fromEntries(Object.entries(LARKFIELD.gates).filter(([id]) => !id.startsWith('b_save'))),
    };
    const wanted = { element: 'p_item_title', level: 2, at: WEDNESDAY, naming: 'roles' } as const;
    expect(smallestChange(unsaved, { ...wanted, viewer: viewerOfRole('registrar') }, [])).toBeUndefined();
  });
});

describe('lines that would count', () => {
  const sinceOf = (
    viewer: Viewer,
    element: string,
    at: { moment: number },
    record?: Record<string, string>,
  ): Since[] => {
    const access = unsharedAccessOf(compile(LARKFIELD), viewer, at);
    const entity = access.compiled.tree.recordOf(access.element(element));
    const { steps } = explain(access, element, record && entity && { entity, values: record });
    return steps.flatMap(({ nearly }) => nearly.flatMap(({ since }) => since));
  };

  it('tell the questions of a condition, with the values that made it false', () => {
    const [since] = sinceOf(person('Marcus Bell'), 'b_courier', SUNDAY_EVENING);
    if (since?.is !== 'when') throw new Error(JSON.stringify(since));
    expect(since.told).toContainEqual({
      question: 'weekday in (Saturday, Sunday)',
      answer: true,
      values: [{ name: 'weekday', value: 'Sunday' }],
    });
    expect(since.told).toContainEqual({
      question: 'time < 17:30',
      answer: false,
      values: [{ name: 'time', value: '19:00' }],
    });
  });

  it('tell of a role that is held elsewhere, of one that is not held now, and of a group', () => {
    const rhoda = sinceOf(person('Rhoda Fenn'), 's_loan', WEDNESDAY, { loan_branch: 'main-hall' });
    expect(rhoda).toContainEqual({ is: 'unit' });
    const early = { moment: Date.UTC(2026, 9, 1) };
    const col = sinceOf(person('Col Whitby'), 's_new_item', early);
    expect(col).toContainEqual({ is: 'period', from: '2026-11-16T00:00:00Z', until: '2027-02-01T00:00:00Z' });
    // Both keep it from counting: the group, and the line's own condition.
    expect(sinceOf(person('Ines Okafor'), 'p_item_store', WEDNESDAY)).toMatchObject([
      { is: 'group', told: [{ answer: false }] },
      { is: 'when', told: [{ question: 'session.taking_stock = true' }] },
    ]);
  });
});

describe('the grid', () => {
  it('has the same answers in its cells, in the whole matrix, and one by one', () => {
    everywhere((draw) => {
      const compiled = compile(drawDefinition(draw));
      const at = drawCircumstances(draw);
      // More than are decided at once, some of them.
      const many = draw.chance(10) ? 40 : 3;
      const viewers = [SIGNED_OUT, ...Array.from({ length: many }, () => drawViewer(draw))];
      const matrix = matrixOf(compiled, viewers, at);
      const width = compiled.tree.elements.length;
      viewers.forEach((viewer, n) => {
        const access = accessOf(compiled, viewer, at);
        for (const element of compiled.tree.elements) {
          const answer = access.answer(element);
          expect(unpacked(matrix[n * width + element.number] as number)).toEqual(answer);
          const cell = cellOf(access, element);
          expect(cell.answer).toEqual(answer);
          if (cell.byDoor) expect(answer.least).toBeLessThan(2);
        }
      });
    }, 150);
  });

  it.each<[string, string, Viewer, Partial<ReturnType<typeof cellOf>>]>([
    ['own lines', 's_items', viewerOfRole('volunteer'), { own: true, byContainer: false, byDoor: false }],
    [
      'following',
      'p_item_maker',
      viewerOfRole('assistant'),
      { own: false, byContainer: false, byDoor: false },
    ],
    [
      'a container limits own lines',
      'p_item_condition',
      viewerOfRole('lender'),
      { own: true, byContainer: true },
    ],
    ['a door limits a menu item', 'm_loans', viewerOfRole('volunteer'), { own: false, byDoor: true }],
    ['a group of whom nothing else is known', 'b_take_stock', viewerOfGroup('g_trained'), { own: true }],
  ])('tells %s', (_, id, viewer, expected) => {
    const access = accessOf(compile(LARKFIELD), viewer, WEDNESDAY);
    expect(cellOf(access, access.element(id))).toMatchObject(expected);
  });

  it('copies a role: what the one has the other has too, and nobody else changes', () => {
    const gates = Object.keys(LARKFIELD.gates);
    const edit = copyRole(LARKFIELD, 'volunteer', 'lender', gates);
    const made = edit && applyEdit(LARKFIELD, edit);
    if (!made?.ok) throw new Error('It was not made');
    const [before, after] = [compile(LARKFIELD), compile(made.value)];
    for (const element of after.tree.elements) {
      const answer = (role: string, of = after): Answer =>
        accessOf(of, viewerOfRole(role), WEDNESDAY).answer(element);
      expect([element.id, answer('lender')]).toEqual([element.id, answer('volunteer')]);
      for (const other of ['volunteer', 'curator', 'head'])
        expect(answer(other)).toEqual(answer(other, before));
    }
    expect(copyRole(made.value, 'volunteer', 'lender', gates)).toBeUndefined();
  });

  it('copies an element’s lines, and following too', () => {
    const apply = (edit: ReturnType<typeof copyGate>): Definition => {
      const made = edit && applyEdit(LARKFIELD, edit);
      if (!made?.ok) throw new Error('It was not made');
      return made.value;
    };
    const lines = apply(copyGate(LARKFIELD, 'p_item_lender', 'p_item_maker')).gates['p_item_maker']?.lines;
    expect(lines?.map(({ who, what }) => [who, what])).toEqual(
      LARKFIELD.gates['p_item_lender']?.lines.map(({ who, what }) => [who, what]),
    );
    expect(
      apply(copyGate(LARKFIELD, 'p_item_maker', 'p_item_lender')).gates['p_item_lender'],
    ).toBeUndefined();
  });
});

describe('reach', () => {
  it('counts everybody once who gets the element, each under a line that gives and speaks of them', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const compiled = compile(definition);
      const at = drawCircumstances(draw);
      const people = Array.from({ length: 6 }, (_, n) => ({ id: `x${n}`, viewer: drawViewer(draw) }));
      const element = draw.one(compiled.tree.elements);
      const found = whoGets(compiled, element.id, people, at);
      const reached = people.filter(({ viewer }) => accessOf(compiled, viewer, at).answer(element).most > 0);
      expect(found.people).toBe(reached.length);
      const named = new Set(found.ways.flatMap((way) => way.people.map(({ id }) => id)));
      for (const id of named) expect(reached.map((one) => one.id)).toContain(id);
      for (const { line } of found.ways) expect(['see', 'edit']).toContain(line.what);
    });
  });

  it('lists what opens for a viewer, and only that', () => {
    const access = accessOf(compile(LARKFIELD), viewerOfRole('lender'), WEDNESDAY);
    const reach = reachOf(access);
    expect(reach.screens.map(({ element }) => element.id)).toEqual(['s_catalogue', 's_pieces', 's_piece']);
    expect(reach.of.screens).toBe(18);
    for (const { inside } of [...reach.screens, ...reach.data])
      for (const { answer } of inside) expect(answer.most).toBeGreaterThan(0);
  });
});

describe('differences between panes', () => {
  const pageOf = (role: string, screen: string) => {
    const access = accessOf(compile(LARKFIELD), viewerOfRole(role), WEDNESDAY);
    const { tree } = access.compiled;
    const answer = (one: (typeof tree.elements)[number]) => [one.id, access.answer(one)] as const;
    return {
      levels: Object.fromEntries(
        [...tree.within(access.element('menu')), ...tree.within(access.element(screen))].map(answer),
      ),
      screens: Object.fromEntries(tree.elements.filter(({ kind }) => kind === 'screen').map(answer)),
    };
  };
  const compiled = compile(LARKFIELD);

  it('join what stands together and differs alike, and tell a closed screen as a whole', () => {
    const found = differences(compiled, [pageOf('curator', 's_item'), pageOf('volunteer', 's_item')]);
    const names = found.map(({ elements }) => elements.map(({ name }) => name).join(', '));
    expect(names).toContain('Title, Maker, Year, Notes');
    expect(names).toContain('Store and shelf');
    const closed = differences(compiled, [pageOf('curator', 's_item'), pageOf('lender', 's_item')]);
    expect(closed[0]?.elements.map(({ id }) => id)).toEqual(['s_item']);
    expect(closed.flatMap(({ elements }) => elements).some(({ kind }) => kind === 'field')).toBe(false);
  });

  it('say nothing where nothing differs, and compare only the menu on different screens', () => {
    expect(differences(compiled, [pageOf('curator', 's_item'), pageOf('curator', 's_item')])).toEqual([]);
    const apart = differences(compiled, [pageOf('curator', 's_item'), pageOf('volunteer', 's_items')]);
    expect(apart.every(({ elements }) => elements.every(({ kind }) => kind === 'menu-item'))).toBe(true);
    const some = screensOfSome(compiled, [pageOf('curator', 's_item'), pageOf('volunteer', 's_item')]);
    expect(some.map(({ elements }) => elements[0]?.id)).toContain('s_loans');
  });
});

describe('a local time as a moment', () => {
  it.each([
    ['2026-11-29T19:00', 'Europe/London', '2026-11-29T19:00:00Z'],
    ['2026-07-01T19:00', 'Europe/London', '2026-07-01T18:00:00Z'],
    // Twice there, when clocks go back: the earlier.
    ['2026-10-25T01:30', 'Europe/London', '2026-10-25T00:30:00Z'],
    // Left out, when they go forward: as much later.
    ['2026-03-29T01:30', 'Europe/London', '2026-03-29T01:30:00Z'],
    ['2026-01-01T00:00', 'Pacific/Kiritimati', '2025-12-31T10:00:00Z'],
  ])('%s in %s', (local, zone, utc) => {
    expect(new Date(momentOf(local, zone)).toISOString()).toBe(new Date(utc).toISOString());
  });

  it('reads back as it was written, but for what is left out', () => {
    fc.assert(
      fc.property(
        fc.date({
          min: new Date('2020-01-01T00:00:00Z'),
          max: new Date('2030-01-01T00:00:00Z'),
          noInvalidDate: true,
        }),
        fc.constantFrom('Europe/London', 'America/St_Johns', 'Asia/Kathmandu', 'UTC'),
        (date, zone) => {
          const { today, time } = readClock(date.getTime(), zone);
          const back = readClock(momentOf(`${today}T${time}`, zone), zone);
          expect([back.today, back.time]).toEqual([today, time]);
        },
      ),
    );
  });
});

it('finds elements by their words, the best first', () => {
  const { tree } = compile(LARKFIELD);
  expect(findElements(tree, 'store', 3).map(({ name }) => name.toLowerCase().startsWith('store'))).toEqual([
    true,
    true,
    true,
  ]);
  expect(findElements(tree, 'save item details', 5).map(({ id }) => id)).toContain('b_save_item');
  expect(findElements(tree, 'nothing like it', 5)).toEqual([]);
});
