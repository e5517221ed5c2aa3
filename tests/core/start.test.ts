import { accessOf } from '@/core/access/deciding/access';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/deciding/compile';
import { rulesFromScreens } from '@/core/access/questions/screen-rules';
import { viewerOfPerson, type Assignment, type Person } from '@/core/access/deciding/viewer';
import { startLines } from '@/core/edit/proposing/start';
import { termsOf } from '@/core/edit/proposing/terms';
import { lineInWords } from '@/core/edit/comparing/words';
import type { Condition } from '@/core/condition/condition';
import type { Definition } from '@/core/model/definition';
import type { Line, What, Who } from '@/core/model/gate';
import type { Values } from '@/core/model/value-type';
import { LARKFIELD } from '@/demo/definition';

const AT = { moment: Date.UTC(2026, 10, 25, 12) };
const said = (definition: Definition, id: string): string[] =>
  startLines(definition, id).map((line) => lineInWords(line, id, definition, (one) => one));
const withGates = (gates: Readonly<Record<string, Line[]>>): Definition => ({
  ...LARKFIELD,
  gates: {
    ...LARKFIELD.gates,
    ...Object.fromEntries(Object.entries(gates).map(([id, lines]) => [id, { lines }])),
  },
});
let count = 0;
const line = (who: Who, what: What, when?: Condition): Line => ({
  id: `t${count++}`,
  who,
  what,
  ...(when && { when }),
});
const role = (id: string, exactly = false): Who => ({ kind: 'role', role: id, ...(exactly && { exactly }) });

const person = (id: string, assignments: readonly Assignment[]): Person => ({
  id,
  name: id,
  active: true,
  assignments,
  attributes: { name: id, email: `${id}@x.example`, home_unit: null },
});

/** What these people have of a door before it has lines, and after it has those that it starts with. */
function beforeAndAfter(definition: Definition, door: string, people: readonly Person[], values: Values) {
  const after = {
    ...definition,
    gates: { ...definition.gates, [door]: { lines: startLines(definition, door) } },
  };
  return people.map((one) =>
    [definition, after].map((each) => {
      const access = accessOf(compile(each), viewerOfPerson(one), AT);
      const entity = access.compiled.tree.entityOf(door);
      if (!entity) throw new Error(door);
      return access.level(access.element(door), { entity, values });
    }),
  );
}

describe('the lines that a follower starts with', () => {
  it('are “everyone: edit” for what follows its container', () => {
    expect(said(LARKFIELD, 'n_terms')).toEqual(['Everyone: edit']);
    expect(said(LARKFIELD, 'b_courier')).toEqual(['Everyone: use']);
  });

  it('are what the screens give to roles, where roles can say it', () => {
    expect(said(LARKFIELD, 'item_notes').sort()).toEqual([
      'Assistant and above: edit',
      'Auditor: see',
      'Conservator: see',
      'Curator: edit',
      'Volunteer and above: see',
    ]);
  });

  it('have a condition where roles cannot say it: lenders keep the value of their own pieces', () => {
    expect(said(LARKFIELD, 'item_value')).toContain(
      'Lender: see, if meets "Own piece" and record.on_loan = true',
    );
    expect(said(LARKFIELD, 'item_title')).toContain('Everyone: see, if record.on_display = true');
  });

  it('are none for a field that never follows', () => {
    const entities = LARKFIELD.entities.map((entity) => ({
      ...entity,
      fields: entity.fields.map((one) => (one.id === 'item_value' ? { ...one, neverFollows: true } : one)),
    }));
    expect(said({ ...LARKFIELD, entities }, 'item_value')).toEqual([]);
  });

  const store = 'item_store';
  const cases: readonly (readonly [string, Readonly<Record<string, Line[]>>])[] = [
    // Who holds both is blocked on the one screen only, and keeps what the other gives.
    [
      'one role gives, the other is blocked exactly',
      { p_item_store: [line(role('volunteer'), 'see'), line(role('curator', true), 'block')] },
    ],
    [
      'a person is blocked',
      { p_item_store: [line(role('volunteer'), 'see'), line({ kind: 'person', person: 'ada' }, 'block')] },
    ],
    [
      'a person is given more',
      { p_item_store: [line(role('volunteer'), 'see'), line({ kind: 'person', person: 'bo' }, 'edit')] },
    ],
    [
      'a cap on a condition',
      {
        p_item_store: [
          line({ kind: 'signed-in' }, 'edit'),
          line(role('registrar'), 'at-most-see', {
            compare: '=',
            left: { record: 'item_shown' },
            right: { value: true },
          }),
        ],
      },
    ],
    [
      'a privilege and a group',
      {
        p_item_store: [
          line({ kind: 'privilege', privilege: 'q_late' }, 'see'),
          line({ kind: 'group', group: 'g_trained' }, 'edit'),
        ],
      },
    ],
    [
      'a home in a unit, but for one role',
      {
        p_item_store: [
          line({ kind: 'unit', unit: 'mill-annexe' }, 'see'),
          line(role('volunteer', true), 'block'),
        ],
      },
    ],
    [
      'the whole screen closed to one',
      { s_item: [line({ kind: 'signed-in' }, 'edit'), line(role('assistant', true), 'block')] },
    ],
  ];
  it.each(cases)('keep everybody’s level: %s', (_, gates) => {
    const people = [
      person('ada', [{ role: 'volunteer' }]),
      person('bo', [{ role: 'volunteer' }, { role: 'curator' }]),
      person('cy', [{ role: 'registrar' }, { role: 'curator' }]),
      person('di', [{ role: 'assistant', unit: 'mill-annexe' }]),
      person('ed', [{ role: 'assistant' }, { role: 'head', unit: 'main-hall' }]),
      person('fay', []),
    ];
    for (const shown of [true, false])
      for (const branch of ['mill-annexe', 'main-hall', null])
        for (const [before, after] of beforeAndAfter(withGates(gates), store, people, {
          item_shown: shown,
          item_branch: branch,
        }))
          expect(after).toBe(before);
  });

  it('say “everywhere” of a role that is asked for around another record', () => {
    // The list of an item's reports stands on the item's screen: which item that is, a report cannot know.
    const screens = compile(LARKFIELD).tree.elements.filter(
      (one) => one.kind === 'list' && one.screen?.binds?.record === 'existing',
    );
    const [list] = screens;
    if (list?.kind !== 'list' || !list.screen) return;
    const definition = withGates({ [list.screen.id]: [line(role('volunteer'), 'see')] });
    const door = compile(definition).tree.need(list.node.entity, 'rows');
    const rule = rulesFromScreens(compile(definition), door);
    expect(JSON.stringify(rule)).toContain('"held":"everywhere"');
  });
});

describe('ways to something', () => {
  const asks = (who: Who, is = true) => ({ who, is });
  const waysOf = (saying: Parameters<typeof termsOf>[1]): number => termsOf(LARKFIELD, saying)?.length ?? -1;

  it('leave out what another way holds, by inclusion too', () => {
    const [volunteer, head] = [asks(role('volunteer')), asks(role('head'))];
    expect(waysOf({ any: [volunteer, head] })).toBe(1);
    expect(termsOf(LARKFIELD, { all: [volunteer, head] })).toEqual([[head]]);
    expect(waysOf({ all: [head, asks(role('volunteer'), false)] })).toBe(0);
    expect(waysOf({ any: [volunteer, asks(role('curator'))] })).toBe(2);
    expect([true, false].map(waysOf)).toEqual([1, 0]);
  });

  it('are given up where they would be too many', () => {
    const pair = (n: number) => ({
      any: [0, 1].map((m) => ({
        when: { compare: '=' as const, left: { user: 'name' }, right: { value: `${n} ${m}` } },
        is: true,
      })),
    });
    expect(termsOf(LARKFIELD, { all: Array.from({ length: 12 }, (_, n) => pair(n)) })).toBeUndefined();
  });
});
