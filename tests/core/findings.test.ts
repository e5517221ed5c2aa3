import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdit } from '@/core/edit/edits/apply';
import { CHECKS, findingsIn } from '@/core/findings';
import type { Closed, Definition, MenuItem, Screen } from '@/core/model/definition';
import { findFaults } from '@/core/model/faults';
import type { Line, What, Who } from '@/core/model/gate';
import type { Id } from '@/core/model/id';
import { LARKFIELD } from '@/demo/definition';
import { drawDefinition, Draw } from './arbitrary';
import { runs } from '../runs';

const AT = Date.UTC(2026, 2, 14, 12);
const found = (definition: Definition, kind: string) =>
  findingsIn(definition, [], AT).filter((one) => one.kind === kind);
const placesOf = (definition: Definition, kind: string): Id[] =>
  found(definition, kind).map(({ places }) => places[0] ?? '');

let lines = 0;
const line = (who: Who, what: What = 'edit'): Line => ({ id: `line${lines++}`, who, what });
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
  plural: 'Notes',
  labelField: 'f',
  fields: [{ id: 'f', name: 'Text', type: { kind: 'text' as const } }],
  actions: (['create', 'update', 'delete'] as const).map((kind) => ({
    kind,
    id: `note_${kind}`,
    name: kind,
  })),
};
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

describe('findings', () => {
  const cases: readonly [kind: string, has: Definition, place: Id, hasNot: Definition][] = [
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

  it.each(cases)(
    '%s is found where it is, and not where it is not; each mend takes it away',
    (kind, has, place, hasNot) => {
      expect(placesOf(has, kind)).toEqual([place]);
      expect(placesOf(hasNot, kind)).toEqual([]);
      const [one] = found(has, kind);
      // A button that works for some only is theirs to decide about.
      expect(one?.mends.length).toBeGreaterThan(kind === 'form-nobody-sends' ? -1 : 0);
      for (const { edit } of one?.mends ?? []) {
        const made = applyEdit(has, edit);
        expect(made.ok && findFaults(made.value)).toEqual([]);
        expect(made.ok && placesOf(made.value, kind)).toEqual([]);
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
        for (const { kind, places, mends } of findingsIn(definition, [], AT))
          for (const { edit, says } of mends) {
            const made = applyEdit(definition, edit);
            if (!made.ok) throw new Error(`${kind} ${says} ${JSON.stringify(made.problems)}`);
            expect(findFaults(made.value)).toEqual([]);
            const left = (of: Definition): number =>
              placesOf(of, kind).filter((place) => place === places[0]).length;
            expect([kind, says, left(made.value) < left(definition)]).toEqual([kind, says, true]);
            mended++;
          }
      }),
      { numRuns: runs(60), endOnFailure: true, seed: 7 },
    );
    expect(mended).toBeGreaterThan(50);
  });

  it('of the demo are those that were planted there', () => {
    expect(findingsIn(LARKFIELD, [], AT).map(({ kind, places }) => `${kind} ${places[0] ?? ''}`)).toEqual([
      'open-by-signing-up loan',
      'used-by-nothing q_fees',
      'used-by-nothing g_annexe',
      'used-by-nothing c_yearly',
    ]);
  });
});
