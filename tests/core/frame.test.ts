import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accessOf } from '@/core/access/deciding/access';
import { compile } from '@/core/access/deciding/compile';
import { viewerOfRole } from '@/core/access/deciding/viewer';
import { frameAround } from '@/core/access/sent/frame';
import { landingOf } from '@/core/access/sent/landing';
import { applyEdit } from '@/core/edit/edits/apply';
import type { Edit } from '@/core/edit/edits/edit';
import { editBetween } from '@/core/edit/edits/between';
import { removalOf } from '@/core/edit/shaping/removal';
import type { Area, Definition, Frame } from '@/core/model/definition';
import { readDefinition } from '@/core/model/schema';
import { LARKFIELD } from '@/demo/definition';
import { drawDefinition, Draw } from './arbitrary';
import { runs } from '../runs';

const item = (id: string, screen: string) => ({ id, name: id, screen, items: [] });
const DESK: Frame = { id: 'desk', name: 'Loans', items: [item('d1', 's_loans'), item('d2', 's_people')] };
const areaOf = (definition: Definition, screen: string): Area =>
  definition.areas.find(({ screens }) => screens.some(({ id }) => id === screen)) as Area;
const LOANS = areaOf(LARKFIELD, 's_loans');

const framed = (frame: Frame, gates: Definition['gates'] = {}): Definition => ({
  ...LARKFIELD,
  areas: LARKFIELD.areas.map((area) => (area === LOANS ? { ...area, frame } : area)),
  gates: { ...LARKFIELD.gates, ...gates },
});

const adding = (id: string): Edit => ({
  do: 'addElement',
  into: { in: LOANS.id, list: 'frame' },
  at: 0,
  node: { ...DESK, id, items: [] },
  gates: {},
  closed: {},
});

describe('a menu of an area', () => {
  const around = (definition: Definition, role: string, screen: string) => {
    const access = accessOf(compile(definition), viewerOfRole(role), { moment: 0 });
    const { name, menu } = frameAround(access, access.compiled.tree.need(screen, 'screen').node);
    return [name, ...menu.map(({ id }) => id)];
  };
  const own = LARKFIELD.name;

  it.each([
    ['stands around its screens, with the items whose screens open', DESK, {}, 's_loans', ['Loans', 'd1']],
    ['and around no others', DESK, {}, 's_items', [own]],
    ['whom it is closed to has the menu of the application', DESK, { desk: { lines: [] } }, 's_loans', [own]],
  ] as const)('%s', (_, frame, gates, screen, expected) => {
    const found = around(framed(frame, gates), 'registrar', screen);
    expect(found.slice(0, expected.length)).toEqual(expected);
    expect(found.includes('d2')).toBe(false);
    expect(found.length > expected.length).toBe(expected[0] === own);
  });

  it('leads those who land nowhere else, after the menu of the application', () => {
    const { startScreen: _, ...rest } = framed(DESK);
    const bare = { ...rest, roles: rest.roles.map(({ startScreen: __, ...role }) => role) };
    const land = (definition: Definition) =>
      landingOf(accessOf(compile(definition), viewerOfRole('registrar'), { moment: 0 }))?.id;
    expect(land(bare)).not.toBe('s_loans');
    expect(land({ ...bare, menu: { ...bare.menu, items: [] } })).toBe('s_loans');
  });

  it('is one at most: the second builder is told so', () => {
    const first = applyEdit(LARKFIELD, adding('f1'));
    expect(first.ok && applyEdit(first.value, adding('f2'))).toMatchObject({
      ok: false,
      problems: [
        { code: 'changed-meanwhile', message: expect.stringContaining('It already has its own menu.') },
      ],
    });
  });

  it('goes with its area’s screens, and by itself', () => {
    const gone = removalOf(framed(DESK), 's_people');
    const left = gone.ok && applyEdit(framed(DESK), gone.value.edit);
    expect(left && left.ok && areaOf(left.value, 's_loans').frame?.items.map(({ id }) => id)).toEqual(['d1']);
    const removed = removalOf(framed(DESK), 'desk');
    const without = removed.ok && applyEdit(framed(DESK), removed.value.edit);
    expect(without && without.ok && without.value.areas).toEqual(LARKFIELD.areas);
  });

  it('gives way to another with some of its items, and back, edit by edit', () => {
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const before = drawDefinition(draw);
        const frames = before.areas.flatMap(({ frame }) => frame?.items ?? []);
        const items = [...before.menu.items, ...frames].filter(() => draw.chance(60));
        const inMenu = items.filter(() => draw.chance(50));
        const inFrame = items.filter((one) => !inMenu.includes(one));
        const after: Definition = {
          ...before,
          gates: Object.fromEntries(Object.entries(before.gates).filter(([id]) => !/^(m|frame)/.test(id))),
          menu: { ...before.menu, items: inMenu },
          areas: before.areas.map((area, n) => {
            const { frame: _, ...rest } = area;
            return n > 0 ? rest : { ...rest, frame: { id: 'fresh', name: 'Fresh', items: inFrame } };
          }),
        };
        fc.pre(readDefinition(after).ok);
        const edit = editBetween(before, after) as Edit;
        const made = applyEdit(before, edit);
        expect(made).toEqual({ ok: true, value: after });
        expect(edit.do).not.toBe('replace');
      }),
      { numRuns: runs(100) },
    );
  });
});
