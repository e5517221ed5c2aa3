import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Condition } from '@/core/condition';
import { keyedPerson } from '@/core/access/deciding/viewer-key';
import { accessOf } from '@/core/access/deciding/access';
import { compile, type Compiled } from '@/core/access/deciding/compile';
import type { Circumstances, Person, Viewer } from '@/core/access/deciding/viewer';
import type { KnownRecord } from '@/core/access/sent/resolve';
import { applyEdit } from '@/core/edit/edits/apply';
import { CHECKS, editOfMend, findingsIn } from '@/core/findings';
import { Context } from '@/core/findings/context';
import type { Area, Closed, Definition, MenuItem, Screen } from '@/core/model/definition';
import { findFaults } from '@/core/model/faults';
import type { Line, What, Who } from '@/core/model/gate';
import type { Id } from '@/core/model/id';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawCircumstances, drawDefinition, drawRecord, drawViewer } from './arbitrary';
import { runs } from '../runs';

const AT = Date.UTC(2026, 2, 14, 12);
const found = (definition: Definition, kind: string, people: readonly Person[] = []) =>
  findingsIn(
    definition,
    people.map(keyedPerson),
    AT,
    CHECKS.filter((one) => one.kind === kind),
  );
const placesOf = (definition: Definition, kind: string, people: readonly Person[] = []): Id[] =>
  found(definition, kind, people).map(({ places }) => places[0] ?? '');
const person = (...roles: readonly string[]): Person => ({
  id: 'ada',
  name: 'Ada',
  active: true,
  assignments: roles.map((one) => ({ role: one })),
  attributes: {},
});

let lines = 0;
const line = (who: Who, what: What = 'edit', when?: Condition): Line => ({
  id: `line${lines++}`,
  who,
  what,
  ...(when && { when }),
});
const EVERYONE: Who = { kind: 'everyone' };
const role = (id: string): Who => ({ kind: 'role', role: id });

const text: Screen['sections'] = [{ id: 'n', name: 'N', parts: [{ kind: 'text', id: 't', text: 'T' }] }];
const screen = (id: string, more: Partial<Screen> = {}): Screen => ({
  id,
  name: id,
  address: id,
  sections: text.map((one) => ({
    ...one,
    id: `${id}_n`,
    parts: [{ kind: 'text', id: `${id}_t`, text: 'T' }],
  })),
  ...more,
});
const item = (id: string, to: string): MenuItem => ({ id, name: id, screen: to, items: [] });

/** A small application with two roles; everybody may enter, and everything is open that is not said otherwise. */
function small(change: Partial<Definition> = {}, gates: Definition['gates'] = {}): Definition {
  const asked = { ...gates, app: { lines: [line(EVERYONE)] } };
  return {
    format: 3,
    id: 'app',
    name: 'Small',
    currency: 'GBP',
    language: 'en-GB',
    timeZone: 'UTC',
    newScreens: 'nobody',
    signUp: false,
    roles: [
      { id: 'clerk', name: 'Clerk', includes: [], privileges: [] },
      { id: 'boss', name: 'Boss', includes: [], privileges: [] },
    ],
    privileges: [],
    units: [],
    attributes: [],
    groups: [],
    conditions: [],
    sessionValues: [],
    entities: [],
    areas: [{ id: 'a', name: 'A', screens: [screen('one'), screen('two')] }],
    menu: { id: 'menu', items: [item('i1', 'one'), item('i2', 'two')] },
    closed: {} as Record<Id, Closed>,
    gates: asked,
    ...change,
  };
}
const only = (who: Who) => ({ lines: [line(who)] });

const NOTE = {
  id: 'note',
  name: 'Note',
  plural: 'Access requests',
  labelField: 'f',
  fields: [{ id: 'f', name: 'Text', type: { kind: 'text' as const } }],
  actions: (['create', 'update', 'delete'] as const).map((kind) => ({
    kind,
    id: `note_${kind}`,
    name: kind,
  })),
};
const DAY = { clock: 'day' } as const;
const TEXT = { record: 'f' } as const;
const NEEDED = { ...NOTE, fields: [{ ...NOTE.fields[0], required: true }] } as Definition['entities'][number];
const CLERK = { id: 'clerk', name: 'Clerk', includes: [], privileges: [], startScreen: 'two' };

/** With notes: a list that opens to who gets `one`, and a form at `two`. */
const withNotes = (gates: Definition['gates'], change: Partial<Definition> = {}): Definition =>
  small(
    {
      entities: [NOTE],
      areas: [
        {
          id: 'a',
          name: 'A',
          screens: [
            screen('one', {
              sections: [
                {
                  id: 'n1',
                  name: 'N',
                  parts: [
                    {
                      kind: 'list',
                      id: 'l',
                      name: 'L',
                      entity: 'note',
                      columns: [{ id: 'c', field: 'f' }],
                      buttons: [],
                    },
                  ],
                },
              ],
            }),
            screen('two', {
              binds: { entity: 'note', record: 'new' },
              sections: [
                {
                  id: 'n2',
                  name: 'N',
                  parts: [
                    { kind: 'field', id: 'p', field: 'f' },
                    { kind: 'button', id: 'b', name: 'Send', effect: { do: 'save' } },
                  ],
                },
              ],
            }),
          ],
        },
      ],
      ...change,
    },
    gates,
  );

const field = (id: string, of: string): Screen['sections'][number]['parts'][number] => ({
  kind: 'field',
  id,
  field: of,
});
const section = (id: string, ...parts: Screen['sections'][number]['parts']): Screen['sections'][number] => ({
  id,
  name: id,
  parts,
});
const THREE = (more: Partial<Screen> = {}): Screen =>
  screen('three', {
    binds: { entity: 'note', record: 'existing' },
    sections: [section('n3', field('p3', 'f'))],
    ...more,
  });

/** With notes, and a screen that shows one. */
const withNote = (
  gates: Definition['gates'],
  change: Partial<Definition> = {},
  three: Screen = THREE(),
): Definition => {
  const whole = withNotes(gates, change);
  return { ...whole, areas: whole.areas.map((area) => ({ ...area, screens: [...area.screens, three] })) };
};

const SET: Condition = { compare: '=', left: { session: 'sv' }, right: { value: true } };
const CHECKED: Partial<Definition> = {
  sessionValues: [{ id: 'sv', name: 'Checked', type: { kind: 'boolean' }, minutes: 5 }],
  areas: [
    {
      id: 'a',
      name: 'A',
      screens: [
        screen('one', {
          sections: [
            section('n1', {
              kind: 'button',
              id: 'b1',
              name: 'Check',
              effect: { do: 'set-session', value: 'sv', to: true },
            }),
          ],
        }),
        screen('two'),
      ],
    },
  ],
};
const LEND: Definition['privileges'] = [{ id: 'g', name: 'G', privileges: [{ id: 'lend', name: 'Lend' }] }];
const named = (id: string, more: Partial<Definition['roles'][number]> = {}): Definition['roles'][number] => ({
  id,
  name: id,
  includes: [],
  privileges: [],
  ...more,
});
const TAGGED: Partial<Definition> = {
  entities: [
    {
      ...NOTE,
      fields: [...NOTE.fields, { id: 'tag_of', name: 'Tag', type: { kind: 'record', entity: 'tag' } }],
    },
    {
      ...NOTE,
      id: 'tag',
      labelField: 'tag_name',
      fields: [{ id: 'tag_name', name: 'Name', type: { kind: 'text' } }],
      actions: NOTE.actions.map((one) => ({ ...one, id: `tag_${one.kind}` })),
    },
  ],
};
const HANDED: Partial<Definition> = {
  entities: [
    {
      ...NOTE,
      actions: [...NOTE.actions, { kind: 'named', id: 'finish', name: 'Finish', sets: { f: 'done' } }],
    },
  ],
};

/** A section for some, in which two texts are for clerks. */
const CLOSED = (who: Who): Definition =>
  small(
    {
      areas: [
        {
          id: 'a',
          name: 'A',
          screens: [
            screen('one', {
              sections: ['n1', 'n2'].map((id) =>
                section(
                  id,
                  { kind: 'text', id: `${id}_t1`, text: 'T' },
                  { kind: 'text', id: `${id}_t2`, text: 'T' },
                ),
              ),
            }),
            screen('two'),
          ],
        },
      ],
    },
    { n1: only(who), n1_t1: only(role('clerk')), n1_t2: only(role('clerk')) },
  );

const WRITTEN = THREE({
  sections: [
    section('n3', field('p3', 'f'), { kind: 'button', id: 'b3', name: 'Save', effect: { do: 'save' } }),
  ],
});

const standingIn = (changes: boolean): Definition =>
  withNotes(
    { two: only(role('boss')) },
    {
      privileges: LEND,
      roles: [named('clerk', { privileges: ['lend'] }), named('boss', { standInFull: true })],
      standIn: { privilege: 'lend', minutes: 5, changes },
    },
  );
const unlocking = (who: string): Definition =>
  withNote(
    { p3: only(role(who)) },
    {
      privileges: LEND,
      roles: [named('clerk', { privileges: ['lend'] }), named('boss')],
      unlock: { privilege: 'lend', minutes: 5 },
      closed: { p3: { show: 'locked' } },
    },
  );
const tagged = (gates: Definition['gates']): Definition =>
  withNote(
    gates,
    TAGGED,
    THREE({
      sections: [
        section('n3', field('p3', 'tag_of'), {
          kind: 'button',
          id: 'b3',
          name: 'Save',
          effect: { do: 'save' },
        }),
      ],
    }),
  );
const faced = (gates: Definition['gates']): Definition => {
  const faces = ['f1', 'f2'].map((id) => ({
    id,
    name: id,
    sections: [section(`${id}_n`, { kind: 'text', id: `${id}_t`, text: 'T' })],
  }));
  return small(
    { areas: [{ id: 'a', name: 'A', screens: [screen('one'), screen('two', { faces })] }] },
    gates,
  );
};
/** A list of notes that opens a screen on which one is shown, and a second list beside it, with a filter. */
const listed = (filter?: Condition): Definition => {
  const list = (id: string, own?: Condition) => ({
    kind: 'list' as const,
    id,
    name: id,
    entity: 'note',
    opens: 'three',
    columns: [],
    buttons: [],
    ...(own && { filter: own }),
  });
  const whole = withNote({ three: { lines: [line(EVERYONE, 'edit', NAMED_X)] } });
  const [area] = whole.areas;
  const one = screen('one', { sections: [section('n1', list('l', filter), list('l_other', NAMED_X))] });
  return { ...whole, areas: [{ ...(area as Area), screens: [one, ...(area as Area).screens.slice(1)] }] };
};
const NAMED_X: Condition = { compare: '=', left: TEXT, right: { value: 'x' } };
const BADGE: Partial<Definition> = {
  attributes: [{ id: 'badge', name: 'Badge', type: { kind: 'text' } }],
};
const hasBadge: Condition = { compare: '=', left: { user: 'badge' }, right: { value: 'A-1' } };
const isCalled = (name: string): Condition => ({
  compare: '=',
  left: { user: 'name' },
  right: { value: name },
});
const writes = (email: string): Condition => ({
  compare: '=',
  left: { user: 'email' },
  right: { value: email },
});
const GROUPED: Partial<Definition> = {
  ...BADGE,
  groups: [{ id: 'badged', name: 'Badged', condition: hasBadge }],
};
const MEMBERS = (public_: boolean): Definition =>
  withNotes(public_ ? {} : { f: only({ kind: 'signed-in' }) }, {
    entities: [{ ...NOTE, fields: [{ ...NOTE.fields[0], name: 'Home address' }] }] as Definition['entities'],
  });
const BULK: Partial<Definition> = {
  entities: [{ ...NOTE, actions: [...NOTE.actions, { kind: 'bulk', id: 'many', name: 'Bulk edit' }] }],
};
const handing = (from: string, to: string): Definition =>
  small(
    {
      roles: [
        named('clerk', { handsOut: from === 'clerk' ? [{ role: to, notHeld: true }] : [] }),
        named('boss', { handsOut: from === 'boss' ? [{ role: to, notHeld: true }] : [] }),
      ],
    },
    { two: only(role('boss')) },
  );
const ABOVE: Partial<Definition> = { roles: [named('clerk'), named('boss', { includes: ['clerk'] })] };
const inUnit = (unitField?: string): Definition =>
  withNotes(
    { note: only(role('clerk')) },
    {
      units: [{ id: 'annexe', name: 'Annexe', units: [] }],
      entities: [
        {
          ...NOTE,
          fields: [...NOTE.fields, { id: 'place', name: 'Place', type: { kind: 'unit' } }],
          ...(unitField !== undefined && { unitField }),
        },
      ],
    },
  );
const inAnnexe: Person = {
  ...person(),
  assignments: [{ role: 'clerk', unit: 'annexe' }],
};

/** Of the second screen, with a condition. */
const when = (what: What, condition: Condition, who: Who = EVERYONE): Definition =>
  small({}, { two: { lines: [...(what === 'block' ? [line(EVERYONE)] : []), line(who, what, condition)] } });
const day = (compare: '<' | '>' | '=', to: string): Condition => ({
  compare,
  left: DAY,
  right: { value: to },
});

/** What somebody gets of every element on these records. */
function levelsOf(
  compiled: Compiled,
  viewer: Viewer,
  at: Circumstances,
  records: readonly KnownRecord[],
): ReadonlyMap<string, number> {
  const access = accessOf(compiled, viewer, at);
  return new Map(
    compiled.tree.elements.flatMap((element) => {
      const [on, around] = [compiled.tree.recordOf(element)?.id, element.screen?.binds?.entity].map((id) =>
        records.find(({ entity }) => entity.id === id),
      );
      return [[element.id, access.level(element, on, around)] as const];
    }),
  );
}

describe('findings', () => {
  const cases: readonly [
    kind: string,
    has: Definition,
    place: Id,
    hasNot: Definition,
    people?: readonly Person[],
  ][] = [
    [
      'hidden-here-shown-there',
      withNote({ p3: only(role('boss')) }),
      'p3',
      withNote({ f: only(role('boss')) }),
    ],
    [
      'wider-than-screens',
      withNotes({ note: only({ kind: 'signed-in' }), one: only(role('boss')) }),
      'note',
      withNotes({ note: only(role('boss')), one: only(role('boss')) }),
    ],
    [
      'lets-oneself-in',
      small(CHECKED, { two: { lines: [line(EVERYONE, 'edit', SET)] } }),
      'two',
      small(CHECKED, {
        two: { lines: [line(role('clerk'), 'edit', SET)] },
        b1: only({ kind: 'signed-out' }),
      }),
    ],
    [
      'handing-out-adds-up',
      small({
        roles: [
          named('clerk', { handsOut: [{ role: 'deputy', notHeld: true }] }),
          named('deputy', { handsOut: [{ role: 'boss', notHeld: true }] }),
          named('boss'),
        ],
      }),
      'clerk',
      small({
        roles: [
          named('clerk', { handsOut: ['deputy', 'boss'].map((one) => ({ role: one, notHeld: true })) }),
          named('deputy', { handsOut: [{ role: 'boss', notHeld: true }] }),
          named('boss'),
        ],
      }),
    ],
    ['standing-in-reaches-further', standingIn(true), 'boss', standingIn(false)],
    [
      'pointed-to-closed',
      tagged({ tag_of: only(EVERYONE) }),
      'tag_of',
      tagged({ tag_of: only(EVERYONE), tag: only(EVERYONE), tag_name: only(EVERYONE) }),
    ],
    ['picks-from-nothing', tagged({}), 'p3', tagged({ tag: only(EVERYONE) })],
    [
      'nobody-is-left',
      small({ roles: [named('clerk', { handsOut: [{ role: 'clerk' }] })] }),
      'clerk',
      small({ roles: [named('boss', { handsOut: [{ role: 'boss' }] })] }),
      [person('boss')],
    ],
    [
      'line-never-helps',
      small({}, { two: only(role('boss')), i2: { lines: [line(role('clerk')), line(role('boss'))] } }),
      'i2',
      small({}, { i2: { lines: [line(role('clerk')), line(role('boss'))] } }),
    ],
    [
      'covered-line',
      small({}, { two: { lines: [line(role('clerk')), line({ kind: 'signed-in' })] } }),
      'two',
      small({}, { two: { lines: [line(role('clerk')), line({ kind: 'signed-in' }, 'see')] } }),
    ],
    [
      'block-without-use',
      small({}, { two: { lines: [line({ kind: 'signed-out' }), line(role('clerk'), 'block')] } }),
      'two',
      small({}, { two: { lines: [line(EVERYONE), line(role('clerk'), 'block')] } }),
    ],
    ['never-true', when('edit', day('>', '40')), 'two', when('edit', day('=', '31'))],
    [
      'always-true',
      when('block', day('<', '40'), role('clerk')),
      'two',
      when('block', day('<', '20'), role('clerk')),
    ],
    [
      'closes-itself',
      withNote({
        n3: { lines: [line(EVERYONE, 'edit', { compare: '=', left: TEXT, right: { value: 'x' } })] },
      }),
      'n3',
      withNote(
        { n3: { lines: [line(EVERYONE, 'edit', { compare: '=', left: TEXT, right: { value: 'x' } })] } },
        {},
        THREE({ sections: [section('n0', field('p0', 'f')), section('n3', field('p3', 'f'))] }),
      ),
    ],
    ['container-closes', CLOSED(role('boss')), 'n1', CLOSED(EVERYONE)],
    ['personal-data-public', MEMBERS(true), 'f', MEMBERS(false)],
    ['list-without-filter', listed(), 'l', listed(NAMED_X)],
    ['new-screens-open', small({ newScreens: 'everyone' }), 'app', small({ newScreens: 'signed-in' })],
    ['hands-out-more', handing('clerk', 'boss'), 'clerk', handing('boss', 'clerk')],
    [
      'saves-nothing',
      withNote({ p3: { lines: [line(EVERYONE, 'see')] } }, {}, WRITTEN),
      'b3',
      withNote({}, {}, WRITTEN),
    ],
    [
      'written-but-not-saved',
      withNote({ p3: { lines: [line(role('clerk'))] }, b3: only(role('boss')) }, {}, WRITTEN),
      'three',
      withNote({ p3: { lines: [line(role('clerk'))] } }, {}, WRITTEN),
    ],
    [
      'bulk-changes-nothing',
      withNote({ many: only(role('clerk')), f: { lines: [line(EVERYONE, 'see')] } }, BULK, WRITTEN),
      'many',
      withNote({ many: only(role('clerk')) }, BULK, WRITTEN),
    ],
    [
      'block-hits-above',
      small(ABOVE, { two: { lines: [line(EVERYONE), line(role('clerk'), 'block')] } }),
      'two',
      small(ABOVE, {
        two: { lines: [line(EVERYONE), line({ kind: 'role', role: 'clerk', exactly: true }, 'block')] },
      }),
    ],
    [
      'blocks-in-doubt',
      small(BADGE, { two: { lines: [line(EVERYONE), line(EVERYONE, 'block', hasBadge)] } }),
      'two',
      small(BADGE, { two: { lines: [line(EVERYONE), line({ kind: 'signed-in' }, 'block', hasBadge)] } }),
    ],
    ['compared-with-role-name', when('edit', isCalled('boss')), 'two', when('edit', { hasRole: 'boss' })],
    [
      'email-in-capitals',
      when('edit', writes('Ada@example.org')),
      'two',
      when('edit', writes('ada@example.org')),
    ],
    [
      'session-never-set',
      small({ ...CHECKED, areas: small().areas }, { two: { lines: [line(EVERYONE, 'edit', SET)] } }),
      'sv',
      small(CHECKED, { two: { lines: [line(EVERYONE, 'edit', SET)] } }),
    ],
    ['held-in-a-unit-only', inUnit(), 'clerk', inUnit('place'), [inAnnexe]],
    [
      'group-of-nobody',
      small(GROUPED, { two: only({ kind: 'group', group: 'badged' }) }),
      'badged',
      small({ ...GROUPED, groups: [{ id: 'badged', name: 'B', condition: { not: hasBadge } }] }),
      [{ ...person('boss'), attributes: { badge: 'B-2' } }],
    ],
    ['face-never-first', faced({}), 'f2', faced({ f1: only(role('boss')) })],
    [
      'written-by-hand',
      withNote(
        {
          finish: {
            lines: [line(EVERYONE, 'edit', { compare: '!=', left: TEXT, right: { value: 'done' } })],
          },
        },
        HANDED,
        WRITTEN,
      ),
      'f',
      withNote({ finish: only(EVERYONE) }, HANDED, WRITTEN),
    ],
    ['unlocks-what-they-lack', unlocking('boss'), 'p3', unlocking('clerk')],
    [
      'role-adds-nothing',
      small({ roles: [named('clerk')] }),
      'clerk',
      small({ roles: [named('clerk')] }, { two: only(role('clerk')) }),
    ],
    ['hidden-but-open', small({}, { i2: only(role('boss')) }), 'two', small({}, { two: only(role('boss')) })],
    [
      'changed-without-signing-in',
      withNotes({}),
      'note_create',
      withNotes({ two: only({ kind: 'signed-in' }) }),
    ],
    [
      'open-by-signing-up',
      withNotes({ one: only({ kind: 'signed-in' }) }, { signUp: true }),
      'note',
      withNotes({ one: only(role('boss')) }, { signUp: true }),
    ],
    [
      'leads-nowhere',
      small({}, { two: only(role('boss')), i2: only(role('clerk')) }),
      'i2',
      small({}, { two: only(role('boss')), i2: { lines: [line(role('clerk')), line(role('boss'))] } }),
    ],
    [
      'no-way-there',
      small({ menu: { id: 'menu', items: [item('i1', 'one')] } }),
      'two',
      small({ menu: { id: 'menu', items: [item('i1', 'one')] }, startScreen: 'two' }),
    ],
    [
      'form-nobody-sends',
      withNotes({ b: only(role('boss')), two: only({ kind: 'signed-in' }) }),
      'two',
      withNotes({ b: only(role('boss')), two: only(role('boss')) }),
    ],
    [
      'needed-but-closed',
      withNotes({ p: only(role('boss')) }, { entities: [NEEDED] }),
      'two',
      withNotes({ p: only(role('boss')), two: only(role('boss')) }, { entities: [NEEDED] }),
    ],
    [
      'start-screen-closed',
      small({ roles: [CLERK] }, { two: only({ kind: 'person', person: 'p' }) }),
      'two',
      small({ roles: [CLERK] }, { two: only(role('clerk')) }),
    ],
    ['nobody-gets-it', small({}, { two: { lines: [] } }), 'two', small({}, { two: only(role('boss')) })],
    [
      'names-what-is-gone',
      small({}, { two: { lines: [line(EVERYONE), line(role('gone'), 'block')] } }),
      'two',
      small(),
    ],
    [
      'used-by-nothing',
      small({ privileges: [{ id: 'g', name: 'G', privileges: [{ id: 'lend', name: 'Lend' }] }] }),
      'lend',
      small(
        { privileges: [{ id: 'g', name: 'G', privileges: [{ id: 'lend', name: 'Lend' }] }] },
        { two: only({ kind: 'privilege', privilege: 'lend' }) },
      ),
    ],
  ];

  // What to do there is the builder's to say.
  const WITHOUT_MENDS = [
    'form-nobody-sends',
    'nobody-is-left',
    'pointed-to-closed',
    'written-but-not-saved',
    'compared-with-role-name',
    'email-in-capitals',
    'session-never-set',
    'held-in-a-unit-only',
    'group-of-nobody',
  ];

  it.each(cases)(
    '%s is found where it is, and not where it is not; each mend takes it away',
    (kind, has, place, hasNot, people) => {
      expect(placesOf(has, kind, people)).toEqual([place]);
      expect(placesOf(hasNot, kind, people)).toEqual([]);
      const [one] = found(has, kind, people);
      expect(one?.mends.length).toBeGreaterThan(WITHOUT_MENDS.includes(kind) ? -1 : 0);
      for (const mend of one?.mends ?? []) {
        const edit = editOfMend(has, mend);
        if (!edit) throw new Error(`${kind} cannot be mended so: ${mend.says}`);
        const made = applyEdit(has, edit);
        expect(made.ok && findFaults(made.value)).toEqual([]);
        expect(made.ok && placesOf(made.value, kind, people)).toEqual([]);
      }
    },
  );

  it('have a case each', () => {
    expect(cases.map(([kind]) => kind).sort()).toEqual(CHECKS.map(({ kind }) => kind).sort());
  });

  it('name only what there is, and mends that apply and leave the definition whole, whatever it is', () => {
    let mended = 0;
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const definition = drawDefinition(new Draw(value));
        const contextOf = (of: Definition): Context => new Context(of, [], AT);
        const context = contextOf(definition);
        for (const { kind, places, mends } of findingsIn(definition, [], AT))
          for (const mend of mends) {
            const { says } = mend;
            const edit = editOfMend(definition, mend);
            if (!edit) continue;
            const made = applyEdit(definition, edit);
            if (!made.ok) throw new Error(`${kind} ${says} ${JSON.stringify(made.problems)}`);
            expect(findFaults(made.value)).toEqual([]);
            const check = CHECKS.find((one) => one.kind === kind);
            const left = (of: Context): number =>
              [...(check?.find(of) ?? [])].filter((one) => one.places[0] === places[0]).length;
            expect([kind, says, left(contextOf(made.value)) < left(context)]).toEqual([kind, says, true]);
            mended++;
          }
      }),
      { numRuns: runs(30), endOnFailure: true },
    );
    expect(mended).toBeGreaterThan(20);
  });

  it('tell of people whom nobody looks after, where all who could do so in other units', () => {
    const units = ['hall', 'annexe'].map((id) => ({ id, name: id, units: [] }));
    const definition = small({ units, roles: [named('boss', { handsOut: [{ role: 'boss' }] })] });
    const keeper = (unit?: string): Person => ({
      ...person(),
      id: 'bo',
      name: 'Bo',
      assignments: [{ role: 'boss', ...(unit !== undefined && { unit }) }],
      attributes: { home_unit: 'annexe' },
    });
    const ada: Person = { ...person(), attributes: { home_unit: 'hall' } };
    const told = (unit?: string) =>
      found(definition, 'nobody-is-left', [ada, keeper(unit)]).map((one) => one.reason);
    expect([told(), told('hall')].flat()).toEqual([
      expect.stringContaining(
        'Nobody can manage Bo, because everyone who can assign roles can do so in other units only.',
      ) as string,
    ]);
    expect(told('annexe')).toEqual([
      expect.stringContaining(
        'Nobody can manage Ada, because everyone who can assign roles can do so in other units only.',
      ) as string,
    ]);
  });

  it('tell of other records too that are open to whoever opens an account, where these are no more', () => {
    const showing = (value: string): Condition => ({ compare: '=', left: TEXT, right: { value } });
    const gate = (whenIn: string) => ({
      three: {
        lines: [
          line({ kind: 'signed-out' }, 'see', showing('x')),
          line({ kind: 'signed-in' }, 'see', showing(whenIn)),
        ],
      },
      one: only(role('boss')),
      note_create: { lines: [] },
    });
    const told = (whenIn: string): Id[] =>
      placesOf(withNote(gate(whenIn), { signUp: true }), 'open-by-signing-up');
    expect([told('x'), told('y')]).toEqual([[], ['note']]);
  });

  it('are mended as the sentence says: nobody gains by what closes, nobody loses by what opens, whatever the definition', () => {
    const seen = { closes: 0, opens: 0, nothing: 0 };
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const definition = drawDefinition(draw);
        const viewers = draw.many(6, () => drawViewer(draw), 3);
        const circumstances = draw.many(2, () => drawCircumstances(draw), 1);
        const records = definition.entities.map((one) => drawRecord(draw, definition, one));
        for (const { kind, mends } of findingsIn(definition, [], AT))
          for (const mend of mends) {
            const edit = editOfMend(definition, mend);
            const made = edit && applyEdit(definition, edit);
            if (!made?.ok) continue;
            seen[mend.does]++;
            const sides = [definition, made.value].map(compile) as [Compiled, Compiled];
            for (const viewer of viewers)
              for (const at of circumstances) {
                const [was, is] = sides.map((side) => levelsOf(side, viewer, at, records)) as [
                  ReadonlyMap<string, number>,
                  ReadonlyMap<string, number>,
                ];
                for (const key of new Set([...was.keys(), ...is.keys()])) {
                  const [before, after] = [was.get(key) ?? 0, is.get(key) ?? 0];
                  const isKept =
                    mend.does === 'closes'
                      ? after <= before
                      : mend.does === 'opens'
                        ? after >= before
                        : after === before;
                  if (!isKept)
                    throw new Error(`${kind}: “${mend.says}” (${mend.does}): ${key} ${before} → ${after}`);
                }
              }
          }
      }),
      { numRuns: runs(25), endOnFailure: true },
    );
    expect(Math.min(...Object.values(seen))).toBeGreaterThan(5);
  });

  it('of the demo are those that were planted there', () => {
    expect(findingsIn(LARKFIELD, [], AT).map(({ kind, places }) => `${kind} ${places[0] ?? ''}`)).toEqual([
      'hidden-here-shown-there l_loans_loan_fee',
      'open-by-signing-up item',
      'lets-oneself-in p_item_store',
      'hands-out-more keeper',
      'written-by-hand item_store',
      'written-by-hand item_shown',
      'written-by-hand loan_status',
      'written-by-hand loan_courier',
      'used-by-nothing g_annexe',
      'used-by-nothing c_yearly',
    ]);
  });
});
