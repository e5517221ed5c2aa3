import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rightNow, SIGNED_OUT, viewerOfRole } from '@/core/access/deciding/viewer';
import { applyEdit } from '@/core/edit/edits/apply';
import { difference } from '@/core/edit/comparing/difference';
import { compareReach } from '@/core/edit/comparing/access-differences';
import type { Edit } from '@/core/edit/edits/edit';
import { addScreen, editLines, newLine } from '@/core/edit/edits/make';
import { changeInWords } from '@/core/edit/comparing/change-words';
import { powerOf } from '@/core/edit/comparing/power';
import { fullName, handleName, placeInWords, whoInWords } from '@/core/edit/comparing/words';
import type { Definition, Role, Screen } from '@/core/model/definition';
import type { Line } from '@/core/model/gate';
import { Tree } from '@/core/model/tree';
import { readDefinition } from '@/core/model/schema';
import { sameJson } from '@/core/model/same-json';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawDefinition } from './arbitrary';

const made = (...edits: Edit[]): Definition => {
  const result = applyEdit(LARKFIELD, { do: 'together', edits });
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
type Path = readonly (string | number)[];

/** Every place of a document where something stands. */
function placesIn(json: unknown, path: Path = []): { path: Path; at: unknown }[] {
  const inner =
    typeof json === 'object' && json !== null
      ? Object.entries(json).flatMap(([key, one]) =>
          placesIn(one, [...path, Array.isArray(json) ? Number(key) : key]),
        )
      : [];
  return path.length === 0 ? inner : [{ path, at: json }, ...inner];
}

/** Puts something else there, or takes it away, or turns the order round. */
function changeAt(document: unknown, path: Path, at: unknown, draw: Draw): void {
  let holder = document as Record<string | number, unknown>;
  for (const key of path.slice(0, -1)) holder = holder[key] as typeof holder;
  const key = path.at(-1) as string | number;
  const list = Array.isArray(at) && at.length > 1;
  // What holds elements stays what it is: without it there is no document.
  if (list) holder[key] = draw.chance(50) ? at.toReversed() : at.slice(1);
  else if (typeof at === 'string') holder[key] = `${at}x`;
  else if (typeof at === 'boolean') holder[key] = !at;
  else if (typeof at === 'number') holder[key] = at + 1;
}

const registrar: Line = { id: 'new', who: { kind: 'role', role: 'registrar' }, what: 'edit' };
const stores = LARKFIELD.gates['s_stores']?.lines ?? [];
const onlyRegistrar = made(editLines('s_stores', stores, [registrar]));
const everybody = [
  { key: 'out', viewer: SIGNED_OUT },
  ...LARKFIELD.roles.map(({ id }) => ({ key: id, viewer: viewerOfRole(id) })),
];
const told = (after: Definition) =>
  difference(LARKFIELD, after).map((change) => changeInWords(change, LARKFIELD, after, () => undefined));

describe('what a release would change', () => {
  it('says each change in words', () => {
    expect(told(onlyRegistrar)).toEqual([
      {
        about: 'Stores',
        done: [
          'Line removed: Volunteer and above: edit.',
          'Line removed: Conservator: edit.',
          'Line removed: Curator: read-only.',
          'Line removed: Auditor: read-only.',
          'Line added: Registrar and above: edit.',
        ],
      },
    ]);
    expect(told(made({ do: 'startLines', gate: 'item_value', lines: [registrar] }))).toEqual([
      {
        about: 'Items: Insurance value (data)',
        done: ['No longer follows the screens. Lines added: Registrar and above: edit.'],
      },
    ]);
    expect(told(made({ do: 'follow', gate: 's_stores', lines: stores }))).toEqual([
      { about: 'Stores', done: ['Now follows Stores again.'] },
    ]);
    const role = LARKFIELD.roles[5];
    if (!role) throw new Error('No role');
    expect(
      told(made({ do: 'changeItem', list: 'roles', from: role, to: { ...role, includes: ['volunteer'] } })),
    ).toEqual([{ about: 'Role Curator', done: ['Now includes Volunteer and all its access.'] }]);
  });

  it('misses nothing: it is empty only if the two documents are the same, whichever key differs', () => {
    const keys = new Set<string>();
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const drawn = draw.chance(50) ? LARKFIELD : drawDefinition(draw);
        const before = structuredClone(drawn);
        expect(difference(drawn, before)).toEqual([]);
        const places = placesIn(before);
        for (let n = 0; n < 25; n++) {
          const after = structuredClone(before);
          const { path, at } = draw.one(places);
          keys.add(path.filter((one) => typeof one === 'string').join('.'));
          changeAt(after, path, at, draw);
          const changes = difference(before, after);
          expect([path, changes.length > 0]).toEqual([path, !sameJson(before, after)]);
          // Only what is sound can be told of in words.
          for (const change of readDefinition(after).ok ? changes : []) {
            const { about, done } = changeInWords(change, before, after, () => undefined);
            expect([path, about !== '', done.length > 0]).toEqual([path, true, true]);
            expect(done.join(' ')).not.toMatch(/undefined|object Object|It was changed/);
          }
        }
      }),
      { numRuns: 16, endOnFailure: true },
    );
    // The demo has nearly every key that there is.
    expect(keys.size).toBeGreaterThan(60);
  });

  it.each<[string, (role: Role) => Partial<Definition>, string[]]>([
    [
      'standing in, with changes',
      () => ({ standIn: { privilege: 'q_late', minutes: 30, changes: true } }),
      [
        'Acting as another person: Anyone with “Work after hours” can act as another person for 30 minutes, with permission to make changes.',
        'Acting as another person: Anyone with “Work after hours” can act as another person for 30 minutes, with permission to make changes.',
      ],
    ],
    [
      'unlocking',
      () => ({ unlock: { privilege: 'q_late', minutes: 5 } }),
      [
        'Temporary unlocking: Anyone with “Work after hours” can unlock locked elements on other people’s screens for 5 minutes.',
        '5 minutes',
      ],
    ],
    [
      'signing up',
      () => ({ signUp: true }),
      [
        'Sign-up: Anyone can sign up for an account. They are assigned no role and have everything that signed-in people can access.',
      ],
    ],
    [
      'handing out, also what is not held',
      (role) => ({ roles: [{ ...role, handsOut: [{ role: 'head', notHeld: true }] }] }),
      [
        'Role Fresh: People with this role can assign head, even without having it themselves.',
        'Role Fresh: People with this role can assign head, even without having it themselves.',
      ],
    ],
    [
      'joining',
      (role) => ({ roles: [{ ...role, joinable: true }] }),
      ['People can join this role themselves'],
    ],
    [
      'every new person',
      (role) => ({ roles: [{ ...role, givenToNew: true }] }),
      ['Role Fresh: Every new person is assigned this role.'],
    ],
    [
      'setting what is compared',
      (role) => ({ roles: [{ ...role, setsCompared: true }] }),
      [
        'Role Fresh: People with this role who manage users can change attributes that conditions use, and so change those users’ access.',
      ],
    ],
    [
      'a privilege more',
      (role) => ({ roles: [{ ...role, privileges: ['q_late'] }] }),
      ['Role Fresh: Privilege “Work after hours” added.'],
    ],
  ])('tells of power: %s', (_, change, words) => {
    const role: Role = { id: 'fresh', name: 'Fresh', includes: [], privileges: [] };
    const bare: Definition = { ...LARKFIELD, signUp: false, roles: [role] };
    const { standIn: _s, unlock: _u, ...before } = bare;
    const said = powerOf(before, { ...before, ...change(role) }).map((one) => `${one.about}: ${one.said}`);
    expect(said).toHaveLength(1);
    for (const one of words) expect(said[0]).toContain(one);
    // What is taken away gives no power.
    expect(powerOf({ ...before, ...change(role) }, before)).toEqual([]);
  });

  it('says who gains and who loses, also by what follows', () => {
    const shifts = compareReach(LARKFIELD, onlyRegistrar, everybody, rightNow());
    const losing = ['volunteer', 'assistant', 'conservator'];
    const reading = ['curator', 'auditor'];
    expect(shifts.find(({ element }) => element === 's_stores')?.groups).toMatchObject([
      { before: { least: 2, most: 2 }, after: { least: 0, most: 0 }, who: losing },
      { before: { least: 1, most: 1 }, after: { least: 0, most: 0 }, who: reading },
    ]);
    expect(shifts.find(({ element }) => element === 'm_stores')?.groups[0]?.who).toEqual([
      'volunteer',
      'assistant',
      'conservator',
      'curator',
      'auditor',
    ]);
    expect(shifts.some(({ element }) => element === 's_items')).toBe(false);
    expect(compareReach(LARKFIELD, LARKFIELD, everybody, rightNow())).toEqual([]);
  });

  it('notices that the same level is on other records', () => {
    const areas = LARKFIELD.areas.map((area) => ({
      ...area,
      screens: area.screens.map(
        (screen) => JSON.parse(JSON.stringify(screen).replace('"value":true', '"value":false')) as Screen,
      ),
    }));
    const shift = compareReach(LARKFIELD, { ...LARKFIELD, areas }, everybody, rightNow()).find(
      ({ element }) => element === 'item',
    );
    expect(shift?.groups[0]).toMatchObject({ before: { least: 0, most: 2 }, after: { least: 0, most: 2 } });
    expect(shift?.groups[0]?.who).toContain('out');
  });

  it('starts a new screen as the setting says, and counts it as nothing before', () => {
    const screen: Screen = { id: 'fresh', name: 'Fresh', address: 'fresh', sections: [] };
    for (const [newScreens, gaining] of [
      ['nobody', 0],
      ['signed-in', LARKFIELD.roles.length],
      ['everyone', LARKFIELD.roles.length + 1],
    ] as const) {
      const before = { ...LARKFIELD, newScreens };
      const after = applyEdit(before, addScreen(before, 'area_items', screen));
      if (!after.ok) throw new Error('refused');
      const shift = compareReach(before, after.value, everybody, rightNow()).find(
        ({ element }) => element === 'fresh',
      );
      expect(shift?.groups.flatMap(({ who }) => who) ?? []).toHaveLength(gaining);
    }
  });
});

describe('words', () => {
  const tree = new Tree(LARKFIELD);
  const name = (id: string) => (id === 'ines' ? 'Ines Okafor' : undefined);

  it.each<[Line['who'], string]>([
    [{ kind: 'everyone' }, 'Everyone'],
    [{ kind: 'role', role: 'registrar' }, 'Registrar and above'],
    [{ kind: 'role', role: 'registrar', exactly: true }, 'Registrar (directly assigned)'],
    [{ kind: 'role', role: 'curator' }, 'Curator'],
    [{ kind: 'role', role: 'gone' }, 'A deleted role'],
    [{ kind: 'person', person: 'ines' }, 'Ines Okafor'],
    [{ kind: 'person', person: 'gone' }, 'A deleted person'],
  ])('%j is “%s”', (who, words) => expect(whoInWords(who, LARKFIELD, name)).toBe(words));

  it.each([
    [
      'p_item_value',
      'Field on Item details, in Custody',
      'Insurance value (field on Item details)',
      'Item details (field)',
    ],
    ['item_value', 'Data field of Items', 'Items: Insurance value (data)', 'Insurance value'],
    ['m_stores', 'Menu item in Menu', 'Stores (in the menu)', 'Stores (in the menu)'],
    ['s_stores', 'Screen in Stores', 'Stores', 'Stores'],
    [
      'b_save_item',
      'Button on Item details, in Actions',
      'Save changes (button on Item details)',
      'Item details (Save changes)',
    ],
    ['larkfield', 'Application', 'Larkfield Loans Desk', 'Larkfield Loans Desk'],
  ])('places %s', (id, place, full, handle) => {
    const element = tree.get(id);
    if (!element) throw new Error(id);
    expect([placeInWords(element), fullName(element), handleName(element)]).toEqual([place, full, handle]);
  });

  it('makes lines that differ in id only', () => {
    const [a, b] = [newLine({ kind: 'everyone' }, 'see'), newLine({ kind: 'everyone' }, 'see')];
    expect({ ...a, id: '' }).toEqual({ ...b, id: '' });
    expect(a.id).not.toBe(b.id);
  });
});
