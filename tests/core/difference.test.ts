import { describe, expect, it } from 'vitest';
import { rightNow, SIGNED_OUT, viewerOfRole } from '@/core/access/viewer';
import { applyEdit } from '@/core/edit/apply';
import { compareReach, difference } from '@/core/edit/difference';
import type { Edit } from '@/core/edit/edit';
import { addScreen, editLines, newLine } from '@/core/edit/make';
import { changeInWords, fullName, handleName, placeInWords, whoInWords } from '@/core/edit/words';
import type { Definition, Screen } from '@/core/model/definition';
import type { Line } from '@/core/model/gate';
import { Tree } from '@/core/model/tree';
import { LARKFIELD } from '@/demo/definition';

const made = (...edits: Edit[]): Definition => {
  const result = applyEdit(LARKFIELD, { do: 'together', edits });
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
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
          'No longer: Volunteer and above: work.',
          'No longer: Conservator: work.',
          'No longer: Curator: read.',
          'No longer: Auditor: read.',
          'Now: Registrar and above: work.',
        ],
      },
    ]);
    expect(told(made({ do: 'startLines', gate: 'item_value', lines: [registrar] }))).toEqual([
      {
        about: 'Items: Insurance value (data, everywhere)',
        done: ['It no longer follows the screens. Its lines: Registrar and above: edit.'],
      },
    ]);
    expect(told(made({ do: 'follow', gate: 's_stores', lines: stores }))).toEqual([
      { about: 'Stores', done: ['It follows Stores again.'] },
    ]);
    const role = LARKFIELD.roles[5];
    if (!role) throw new Error('No role');
    expect(
      told(made({ do: 'changeItem', list: 'roles', from: role, to: { ...role, includes: ['volunteer'] } })),
    ).toEqual([{ about: 'Curator', done: ['Now includes Volunteer.'] }]);
  });

  it('says who gains and who loses, also by what follows', () => {
    const shifts = compareReach(LARKFIELD, onlyRegistrar, everybody, rightNow());
    const losing = ['volunteer', 'assistant', 'conservator'];
    const reading = ['curator', 'auditor'];
    expect(shifts.find(({ element }) => element === 's_stores')?.groups).toEqual([
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
    [{ kind: 'role', role: 'registrar', exactly: true }, 'Registrar, exactly'],
    [{ kind: 'role', role: 'curator' }, 'Curator'],
    [{ kind: 'role', role: 'gone' }, 'A role that is gone'],
    [{ kind: 'person', person: 'ines' }, 'Ines Okafor'],
    [{ kind: 'person', person: 'gone' }, 'A person who is gone'],
  ])('%j is “%s”', (who, words) => expect(whoInWords(who, LARKFIELD, name)).toBe(words));

  it.each([
    [
      'p_item_value',
      'Field on Item details, in Custody',
      'Insurance value (field on Item details)',
      'Item details (field)',
    ],
    [
      'item_value',
      'Field of the data, of Items',
      'Items: Insurance value (data, everywhere)',
      'Insurance value',
    ],
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
