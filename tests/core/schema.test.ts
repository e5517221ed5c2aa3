import { describe, expect, it } from 'vitest';
import type { Definition, Entity, Screen } from '@/core/model/definition';
import { readDefinition } from '@/core/model/schema';
import { LARKFIELD } from '@/demo/definition';

type Loose = Record<string, unknown>;

const first = LARKFIELD.entities[0] as Entity;
const withEntity = (change: Partial<Entity>): unknown => ({
  ...LARKFIELD,
  entities: [{ ...first, ...change }, ...LARKFIELD.entities.slice(1)],
});
const withGate = (id: string, ...lines: unknown[]): unknown => ({
  ...LARKFIELD,
  gates: { ...LARKFIELD.gates, [id]: { lines } },
});
const withScreen = (screen: Loose): unknown => ({
  ...LARKFIELD,
  areas: [
    ...LARKFIELD.areas,
    {
      id: 'more',
      name: 'More',
      screens: [{ id: 'x', name: 'Extra', address: 'extra', sections: [], ...screen }],
    },
  ],
});
const withPart = (part: Loose, screen: Loose = {}): unknown =>
  withScreen({ ...screen, sections: [{ id: 'xs', name: 'Section', parts: [{ id: 'xp', ...part }] }] });
const button = (effect: Loose): Loose => ({ kind: 'button', name: 'Go', effect });
const list = (more: Loose): Loose => ({
  kind: 'list',
  name: 'List',
  entity: 'item',
  columns: [],
  buttons: [],
  ...more,
});
const equals = (record: string, value: unknown): Loose => ({
  compare: '=',
  left: { record },
  right: { value },
});
const onItem = { binds: { entity: 'item', record: 'existing' } };
const withRoles = (roles: unknown): unknown => ({ ...LARKFIELD, roles });
const line = { id: 'l', who: { kind: 'everyone' }, what: 'see' };

describe('a document that is not right', () => {
  it('is told from one that is', () => expect(readDefinition(LARKFIELD).ok).toBe(true));

  it.each<[string, unknown, RegExp]>([
    ['nothing at all', null, /the document/],
    ['text', 'larkfield', /the document/],
    ['of another format', { ...LARKFIELD, format: 1 }, /format: must be 3/],
    ['without a name', { ...LARKFIELD, name: undefined }, /name: is missing/],
    ['with a misspelt key', { ...LARKFIELD, gate: {} }, /unknown key gate/],
    [
      'with a key that every object has',
      withEntity({ id: 'constructor' }),
      /entities\[0\]\.id: is a reserved word/,
    ],
    [
      'with a line that says something else',
      withGate('s_items', { ...line, what: 'own' }),
      /gates\.s_items\.lines\[0\]\.what/,
    ],
    [
      'with a line that limits in a way nobody knows',
      withGate('s_items', { ...line, unless: 'monday' }),
      /unknown key unless/,
    ],
    [
      'with a line for nobody known',
      withGate('s_items', { ...line, who: { kind: 'anyone' } }),
      /who\.kind: must be one of/,
    ],
    [
      'with a role line without its role',
      withGate('s_items', { ...line, who: { kind: 'role' } }),
      /who\.role: is missing/,
    ],
    [
      'with an address in capitals',
      withScreen({ address: 'Extra' }),
      /address: must contain only lower-case letters/,
    ],
    ['with a part nobody knows', withPart({ kind: 'video' }), /parts\[0\]\.kind: must be one of/],
    [
      'with a filter without a value',
      withPart(list({ filter: { compare: '=', left: { record: 'item_shown' }, right: {} } })),
      /filter\.right: must be an operand/,
    ],
    ['with nothing where it may be left out', { ...LARKFIELD, startScreen: null }, /startScreen: /],
    ['with a list that leads to nothing', withPart({ ...list({}), opens: null }), /parts\[0\]\.opens: /],
  ])('of the wrong shape: %s', (_, document, told) => {
    const read = readDefinition(document);
    expect(
      read.ok ? 'accepted' : read.problems.map(({ place, message }) => `${place}: ${message}`).join('\n'),
    ).toMatch(told);
  });

  it.each<[string, unknown, string, RegExp]>([
    ['an id used twice', withScreen({ id: 's_items' }), 'id-twice', /s_items is used twice/],
    [
      'a role that includes nothing there',
      withRoles([{ id: 'a', name: 'A', includes: ['b'], privileges: [] }]),
      'points-to-nothing',
      /no role b/,
    ],
    [
      'roles in a loop',
      withRoles([
        { id: 'a', name: 'A', includes: ['b'], privileges: [] },
        { id: 'b', name: 'B', includes: ['a'], privileges: [] },
      ]),
      'role-loop',
      /A → B → A/,
    ],
    [
      'an entity without update',
      withEntity({ actions: first.actions.filter(({ kind }) => kind !== 'update') }),
      'actions',
      /one update action/,
    ],
    ['a label that is no text', withEntity({ labelField: 'item_value' }), 'label', /must be a text field/],
    [
      'an initial value that does not fit',
      withEntity({ fields: [{ ...first.fields[0], initial: true } as never, ...first.fields.slice(1)] }),
      'value',
      /not a valid value/,
    ],
    [
      'an action that sets what is not there',
      withEntity({
        actions: [...first.actions, { kind: 'named', id: 'n', name: 'N', sets: { nothing: null } }],
      }),
      'points-to-nothing',
      /field of Item/,
    ],
    [
      'a field of another entity',
      withPart({ kind: 'field', field: 'loan_fee' }, onItem),
      'points-to-nothing',
      /screen's entity/,
    ],
    ['a save with nothing to save', withPart(button({ do: 'save' })), 'effect', /save button needs a record/],
    [
      'a delete without a record',
      withPart(button({ do: 'delete' })),
      'effect',
      /delete button needs a record/,
    ],
    [
      'an action of another entity',
      withPart(button({ do: 'action', action: 'a_loan_approve' }), onItem),
      'effect',
      /action needs a record/,
    ],
    [
      'a built-in action as a named one',
      withPart(button({ do: 'action', action: 'a_item_update' }), onItem),
      'points-to-nothing',
      /named action/,
    ],
    [
      'a button to a record without one',
      withPart(button({ do: 'open', screen: 's_loan' })),
      'effect',
      /screen needs a record/,
    ],
    ['a list of nothing', withPart(list({ entity: 'nothing' })), 'points-to-nothing', /no entity/],
    [
      'a column of another entity',
      withPart(list({ columns: [{ id: 'c', field: 'loan_fee' }] })),
      'points-to-nothing',
      /field of Item/,
    ],
    [
      'a filter that never can match',
      withPart(list({ filter: equals('item_shown', 'yes') })),
      'condition',
      /true or false cannot be compared/,
    ],
    [
      'a filter not in its plain form',
      withPart(list({ filter: equals('item_value', '007') })),
      'condition',
      /a number cannot be compared/,
    ],
    ['rows that lead to another entity', withPart(list({ opens: 's_loan' })), 'row-leads', /an Item record/],
    ['an address used twice', withScreen({ address: 'items' }), 'address-twice', /Item list/],
    ['an address of the API', withScreen({ address: 'api/records' }), 'address-kept', /reserved/],
    [
      'a menu that leads to a record',
      { ...LARKFIELD, menu: { id: 'menu', items: [{ id: 'i', name: 'I', screen: 's_item', items: [] }] } },
      'menu',
      /needs a record/,
    ],
    [
      'a start that is not there',
      { ...LARKFIELD, startScreen: 'nothing' },
      'points-to-nothing',
      /no screen nothing/,
    ],
    ['a gate of nothing', withGate('nothing', line), 'points-to-nothing', /no element nothing/],
    ['a line id used twice', withGate('s_items', line, line), 'id-twice', /used twice/],
    ['no word on who may enter', { ...LARKFIELD, gates: {} }, 'no-entry', /who can enter/],
  ])('of no sense: %s', (_, document, code, told) => {
    const read = readDefinition(document);
    const problem = read.ok ? undefined : read.problems.find((one) => one.code === code);
    expect(problem?.message ?? JSON.stringify(read)).toMatch(told);
    expect(problem?.mend).toBeTruthy();
  });

  it('is told all that is wrong at once', () => {
    const screens: Screen[] = [
      { id: 'x', name: 'X', address: 'items', binds: { entity: 'gone', record: 'new' }, sections: [] },
    ];
    const broken: Definition = {
      ...LARKFIELD,
      startScreen: 'gone',
      areas: [...LARKFIELD.areas, { id: 'y', name: 'Y', screens }],
    };
    const read = readDefinition(broken);
    expect(read.ok ? [] : read.problems.map(({ place }) => place)).toEqual([
      'X',
      'X',
      'Larkfield Loans Desk',
    ]);
  });
});
