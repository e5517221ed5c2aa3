import { describe, expect, it } from 'vitest';
import type { Condition } from '@/core/condition';
import { findingsIn } from '@/core/findings';
import type { Definition, Role, Screen } from '@/core/model/definition';
import type { Line, What, Who } from '@/core/model/gate';
import type { Id } from '@/core/model/id';
import { LARKFIELD } from '@/demo/definition';

const AT = Date.UTC(2026, 2, 14, 12);
const toldOf = (definition: Definition): Set<string> =>
  new Set(findingsIn(definition, [], AT).map(({ kind, places }) => `${kind} ${places.join(' ')}`));
const BEFORE = toldOf(LARKFIELD);

const role = (id: Id): Who => ({ kind: 'role', role: id });
const SIGNED_IN: Who = { kind: 'signed-in' };
let lines = 0;
const line = (who: Who, what: What = 'see', when?: Condition): Line => ({
  id: `line${lines++}`,
  who,
  what,
  ...(when && { when }),
});

type Change = (definition: Definition) => Definition;

/** The gate has just these lines. */
const gate =
  (id: Id, ...own: readonly Line[]): Change =>
  (of) => ({ ...of, gates: { ...of.gates, [id]: { lines: own } } });
/** One line more. */
const more =
  (id: Id, one: Line): Change =>
  (of) => ({ ...of, gates: { ...of.gates, [id]: { lines: [...(of.gates[id]?.lines ?? []), one] } } });
const roleWith =
  (id: Id, change: Partial<Role>): Change =>
  (of) => ({ ...of, roles: of.roles.map((one) => (one.id === id ? { ...one, ...change } : one)) });
const screenWith =
  (id: Id, change: (screen: Screen) => Partial<Screen>): Change =>
  (of) => ({
    ...of,
    areas: of.areas.map((area) => ({
      ...area,
      screens: area.screens.map((one) => (one.id === id ? { ...one, ...change(one) } : one)),
    })),
  });
const all =
  (...changes: readonly Change[]): Change =>
  (of) =>
    changes.reduce((now, change) => change(now), of);

const on = (weekday: string): Condition => ({ oneOf: { clock: 'weekday' }, values: [weekday] });
const status = (compare: '=' | '!=', value: string): Condition => ({
  compare,
  left: { record: 'loan_status' },
  right: { value },
});
const between = (from: string, to: string): Condition => ({
  all: [
    { compare: '>=', left: { clock: 'time' }, right: { value: from } },
    { compare: '<', left: { clock: 'time' }, right: { value: to } },
  ],
});
const dayIs = (value: string): Condition => ({ compare: '=', left: { clock: 'today' }, right: { value } });

/** What is planted, and what is told of it then. */
const PLANTED: readonly (readonly [name: string, plant: Change, told: string])[] = [
  ['a menu item narrower than its screen', gate('m_loans', line(role('head'))), 'hidden-but-open s_loans'],
  ['a menu with screens under it', gate('m_reports', line(role('head'))), 'hidden-but-open s_out'],
  [
    'a button that saves, for others than the form',
    gate('b_create_report', line(role('auditor'), 'edit')),
    'form-nobody-sends s_new_report',
  ],
  [
    'a needed field that its makers may not write',
    gate('loan_borrower', line(role('head'), 'edit')),
    'needed-but-closed s_new_loan',
  ],
  [
    'a needed field that is not on the form',
    screenWith('s_new_loan', ({ sections }) => ({
      sections: sections.map((one) => ({
        ...one,
        parts: one.parts.filter(({ id }) => id !== 'new_loan_borrower'),
      })) as Screen['sections'],
    })),
    'needed-but-closed s_new_loan',
  ],
  [
    'what is pointed to, whose name is closed',
    gate('item_title', line(role('auditor'))),
    'pointed-to-closed loan_item item',
  ],
  [
    'records that are picked, and closed',
    gate('item', line(role('auditor'))),
    'picks-from-nothing new_loan_item',
  ],
  ['a screen for nobody', gate('s_stores'), 'nobody-gets-it s_stores'],
  ['a field of the data for nobody', gate('loan_courier'), 'nobody-gets-it p_loan_courier'],
  [
    'a screen that the menu has lost',
    (of) => ({ ...of, menu: { ...of.menu, items: of.menu.items.filter(({ id }) => id !== 'm_stores') } }),
    'no-way-there s_stores',
  ],
  ['records wider than the screens', gate('report', line(SIGNED_IN)), 'wider-than-screens report'],
  [
    'the same, for whoever opens an account',
    gate('report', line(SIGNED_IN)),
    'open-by-signing-up item loan report',
  ],
  [
    'an export wider than the screens',
    gate('a_item_export', line(SIGNED_IN, 'edit')),
    'wider-than-screens a_item_export',
  ],
  [
    'a value hidden on one screen',
    gate('p_item_value', line(role('head'))),
    'hidden-here-shown-there p_item_value',
  ],
  [
    'a field that opens by one that they may write',
    gate('loan_fee', line(role('registrar'), 'see', status('=', 'out'))),
    'lets-oneself-in loan_fee',
  ],
  [
    'a button that opens by a field that its people may write',
    gate('b_return_loan', line(role('registrar'), 'edit', status('=', 'out'))),
    'lets-oneself-in b_return_loan',
  ],
  [
    'the same by a condition with a name',
    all(
      (of) => ({
        ...of,
        conditions: [
          ...of.conditions,
          { id: 'c_out', name: 'Out', condition: status('=', 'out'), entity: 'loan' },
        ],
      }),
      gate('loan_fee', line(role('registrar'), 'see', { meets: 'c_out' })),
    ),
    'lets-oneself-in loan_fee',
  ],
  [
    'a field of a screen that opens to whom another names, which they may write',
    gate(
      'p_item_notes',
      line(role('volunteer'), 'edit', {
        compare: '=',
        left: { record: 'item_maker' },
        right: { user: 'name' },
      }),
    ),
    'lets-oneself-in p_item_notes item_maker',
  ],
  [
    'a field that opens by the record to which one may point',
    gate(
      'p_loan_courier',
      line(role('assistant'), 'see', {
        compare: '=',
        left: { record: 'item_lender_email', through: 'loan_item' },
        right: { user: 'email' },
      }),
    ),
    'lets-oneself-in p_loan_courier loan_item',
  ],
  [
    'a screen that sets what a line asks for',
    screenWith('s_evenings', () => ({ sets: [{ value: 'sv_stock', to: true }] })),
    'lets-oneself-in p_item_store',
  ],
  [
    'a role to join, with a privilege',
    roleWith('friend', { privileges: ['q_fees'] }),
    'lets-oneself-in friend',
  ],
  [
    'a role to join, with another in it',
    roleWith('friend', { includes: ['registrar'] }),
    'lets-oneself-in friend',
  ],
  [
    'a role to join, with one in it that has no privilege',
    roleWith('friend', { includes: ['curator'] }),
    'lets-oneself-in friend',
  ],
  [
    'data that opens by a role to join',
    roleWith('friend', { includes: ['conservator'] }),
    'open-by-signing-up item loan report',
  ],
  [
    'a line for a privilege that no role holds',
    all(
      (of) => ({
        ...of,
        privileges: [...of.privileges, { id: 'qg', name: 'New', privileges: [{ id: 'q_new', name: 'New' }] }],
      }),
      more('s_out', line({ kind: 'privilege', privilege: 'q_new' })),
    ),
    'nobody-is-left q_new',
  ],
  [
    'a condition that asks for a privilege that no role holds any more',
    all(roleWith('registrar', { privileges: ['q_fees'] }), roleWith('conservator', { privileges: [] })),
    'nobody-is-left q_late',
  ],
  [
    'a screen with people, and no role that hands out others',
    (of) => ({
      ...of,
      roles: of.roles.map(({ handsOut: _, ...one }) => one),
    }),
    'nobody-is-left w_people',
  ],
  [
    'the same screen, closed to whoever hands out others',
    gate('s_people', line(role('head'))),
    'nobody-is-left w_people keeper',
  ],
  [
    'a privilege to unlock that no role holds',
    roleWith('head', { privileges: ['q_schedule', 'q_stand_in'] }),
    'nobody-is-left q_unlock',
  ],
  [
    'a block of a role that was given nothing',
    more('s_loans', line(role('keeper'), 'block')),
    'block-without-use s_loans',
  ],
  [
    'a role for all who are new, with a privilege',
    roleWith('lender', { privileges: ['q_fees'] }),
    'lets-oneself-in lender',
  ],
  [
    'what is compared, set for each other',
    roleWith('keeper', { setsCompared: true }),
    'lets-oneself-in keeper',
  ],
  [
    'handing out in two steps',
    roleWith('registrar', { handsOut: [{ role: 'head', notHeld: true }] }),
    'handing-out-adds-up keeper',
  ],
  [
    'a start screen that is closed',
    roleWith('auditor', { startScreen: 's_people' }),
    'start-screen-closed s_people',
  ],
  [
    'a start screen of the application that is closed to all who start there',
    all((of) => ({ ...of, startScreen: 's_pieces' })),
    'start-screen-closed s_pieces',
  ],
  [
    'a day that is over',
    more('s_loans', line(role('curator'), 'see', dayIs('2026-03-13'))),
    'never-true s_loans',
  ],
  [
    'from a day on that is over',
    more(
      's_loans',
      line(role('curator'), 'see', {
        compare: '>=',
        left: { clock: 'today' },
        right: { value: '2026-01-01' },
      }),
    ),
    'always-true s_loans',
  ],
  [
    'two weekdays at once',
    more('s_loans', line(role('curator'), 'see', { all: [on('monday'), on('tuesday')] })),
    'never-true s_loans',
  ],
  [
    'hours over midnight',
    more('s_loans', line(role('curator'), 'see', between('22:00', '05:00'))),
    'never-true s_loans',
  ],
  [
    'the hour that a clock change skips',
    more('s_loans', line(role('curator'), 'see', { all: [dayIs('2027-03-28'), between('01:00', '02:00')] })),
    'never-true s_loans',
  ],
  [
    'a day that is another weekday',
    more('s_loans', line(role('curator'), 'see', { all: [dayIs('2026-12-25'), on('monday')] })),
    'never-true s_loans',
  ],
  [
    'an option that has been deleted',
    more('loan_fee', line(role('curator'), 'see', status('=', 'lost'))),
    'never-true loan_fee',
  ],
  [
    'an option or any other',
    more('loan_fee', line(role('curator'), 'see', { any: [status('=', 'out'), status('!=', 'out')] })),
    'always-true loan_fee',
  ],
  ['a line that another covers', more('s_loans', line(role('registrar'))), 'covered-line s_loans'],
  ['a block of all who were given', more('s_loans', line(SIGNED_IN, 'block')), 'block-without-use s_loans'],
  [
    'a role like another',
    (of) => ({
      ...of,
      roles: [...of.roles, { id: 'second', name: 'Second', includes: ['registrar'], privileges: [] }],
    }),
    'role-adds-nothing second',
  ],
  [
    'a section that opens by what stands in it',
    gate('n_terms', line(role('registrar'), 'edit', status('=', 'approved'))),
    'closes-itself n_terms',
  ],
  [
    'a field that an action sets, written by hand',
    gate('a_loan_return', line(role('head'), 'edit')),
    'written-by-hand loan_status a_loan_approve a_loan_return',
  ],
  ['a face after one for everyone', gate('h_away', line({ kind: 'everyone' })), 'face-never-first h_home'],
  [
    'a group that has been deleted',
    more('s_loans', line({ kind: 'group', group: 'gone' })),
    'names-what-is-gone s_loans',
  ],
  [
    'standing in for who sees more, in full',
    all(roleWith('head', { standInFull: true }), roleWith('conservator', { privileges: ['q_stand_in'] })),
    'standing-in-reaches-further head',
  ],
  [
    'who is refused is sent to where they are refused',
    all(
      (of) => ({ ...of, closed: { ...of.closed, s_people: { show: 'sent', screen: 's_stores' } } }),
      gate('s_stores', line(role('keeper'))),
    ),
    'leads-nowhere s_people',
  ],
  [
    'what is shown locked, and who unlocks lacks it',
    all(
      (of) => ({ ...of, closed: { ...of.closed, p_loan_fee: { show: 'locked' } } }),
      gate('p_loan_fee', line(role('auditor'))),
    ),
    'unlocks-what-they-lack p_loan_fee',
  ],
  [
    'one of two who may unlock lacks what is locked',
    roleWith('keeper', { privileges: ['q_unlock'] }),
    'unlocks-what-they-lack p_loan_approver',
  ],
];

describe('a fault that is planted in the demo', () => {
  it.each(PLANTED)('%s is told, and was not before', (_, plant, told) => {
    const now = [...toldOf(plant(LARKFIELD))].filter((one) => !BEFORE.has(one));
    expect(now.filter((one) => `${one} `.startsWith(`${told} `))).not.toEqual([]);
  });
});
