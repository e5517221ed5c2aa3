import { describe, expect, it } from 'vitest';
import { accessOf, compile, viewerOfRole } from '@/core';
import { type Access, type KnownRecord, SIGNED_OUT } from '@/core/access';
import { type AppElement, treeOf } from '@/core/model';
import { Already, behindTopic, sweepRecords } from '@/core/sweep';
import { LARKFIELD } from '@/demo/definition';

const compiled = compile(LARKFIELD);
const tree = treeOf(LARKFIELD);
const records = sweepRecords(LARKFIELD, [], 0).map(({ entity, ...one }): KnownRecord => ({
  ...one,
  entity: tree.need(entity, 'rows').node,
}));
const everybody = [SIGNED_OUT, ...LARKFIELD.roles.map(({ id }) => viewerOfRole(id))].map((viewer) =>
  accessOf(compiled, viewer, { moment: 0 }),
);
const screens = tree.screens().map(({ id }) => tree.need(id, 'screen'));

/** The levels that the viewer gets on the records that there are. */
function levelsOf(access: Access, element: AppElement): string {
  const entity = tree.recordOf(element);
  const on = entity ? records.filter((one) => one.entity === entity) : [undefined];
  return [...new Set(on.map((record) => access.level(element, record)))].sort().join('');
}

describe('what a sweep asked already', () => {
  it('is asked as fewer than everybody, and each thing was asked that somebody gets in something open or closed', () => {
    const already = new Already(records);
    const asked = new Map<AppElement, Access[]>(screens.map((screen) => [screen, []]));
    for (const access of everybody)
      for (const screen of screens) {
        const deciding = already.decidingAt(access, [screen], behindTopic(compiled, screen.id));
        if (already.took(screen.id, deciding) !== undefined) continue;
        already.note(screen.id, deciding, 1);
        asked.get(screen)?.push(access);
      }
    const all = screens.length * everybody.length;
    expect([...asked.values()].flat().length).toBeLessThan(all * 0.8);
    for (const access of everybody)
      for (const screen of screens)
        for (const element of behindTopic(compiled, screen.id)) {
          if (element.list || element.kind === 'list') continue;
          const both = [screen, element].map((one) => levelsOf(access, one)).join(' ');
          const alike = asked
            .get(screen)
            ?.some((one) => [screen, element].map((each) => levelsOf(one, each)).join(' ') === both);
          expect([screen.name, element.name, both, alike]).toEqual([screen.name, element.name, both, true]);
        }
  });

  it('is asked again as whom a line speaks of that spoke of nobody before', () => {
    const already = new Already(records);
    const [screen] = screens;
    if (!screen) throw new Error('There is no screen');
    const [before, after] = [
      { lines: [] },
      { lines: [{ id: 'x', who: { kind: 'everyone' }, what: 'block' }] },
    ].map((gate) =>
      accessOf(
        compile({ ...LARKFIELD, gates: { ...LARKFIELD.gates, [screen.id]: gate } as typeof LARKFIELD.gates }),
        SIGNED_OUT,
        { moment: 0 },
      ),
    );
    if (!before || !after) throw new Error('There are two');
    const of = (access: Access): number[] => already.decidingAt(access, [screen], [screen]);
    already.note('screen', of(before), 3);
    expect([already.took('screen', of(before)), already.took('screen', of(after))]).toEqual([3, undefined]);
  });
});
