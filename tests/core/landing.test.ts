import { accessOf } from '@/core/access/deciding/access';
import { describe, expect, it } from 'vitest';
import { readAddress } from '@/core/access/sent/address';
import { compile } from '@/core/access/deciding/compile';
import { landingOf } from '@/core/access/sent/landing';
import { rightNow, SIGNED_OUT, type Viewer } from '@/core/access/deciding/viewer';
import type { Definition } from '@/core/model/definition';
import { LARKFIELD } from '@/demo/definition';

const roles = (...held: string[]): Viewer => ({
  kind: 'signed-in',
  assignments: held.map((role) => ({ role })),
});

describe('where a viewer lands', () => {
  it.each([
    [
      'the first open in the menu, where nothing names a screen that is open',
      SIGNED_OUT,
      undefined,
      's_catalogue',
    ],
    ['the application’s start', roles('volunteer'), undefined, 's_items'],
    ['the start of the first role held that has one, also by inclusion', roles('head'), undefined, 's_loans'],
    ['the first role in the builder’s order', roles('keeper', 'conservator'), undefined, 's_reports'],
    ['the: all others → person’s own start', roles('registrar'), 's_stores', 's_stores'],
    ['never a screen that is closed', roles('volunteer'), 's_people', 's_items'],
    ['never a screen that has been deleted', roles('volunteer'), 's_nothing', 's_items'],
    ['never a screen that needs a record', roles('registrar'), 's_item', 's_loans'],
  ] as const)('is %s', (_, viewer, own, screen) => {
    expect(landingOf(accessOf(compile(LARKFIELD), viewer, rightNow()), own)?.id).toBe(screen);
  });

  it('is nowhere where nothing is open', () => {
    const closed: Definition = { ...LARKFIELD, gates: { ...LARKFIELD.gates, larkfield: { lines: [] } } };
    expect(landingOf(accessOf(compile(closed), roles('head'), rightNow()))).toBeUndefined();
  });
});

describe('addresses', () => {
  it.each([
    ['items', 's_items', undefined],
    ['items/new', 's_new_item', undefined],
    ['items/7Q2M', 's_item', '7Q2M'],
    ['reports/out', 's_out', undefined],
    ['reports', undefined, undefined],
    ['items/7Q2M/more', undefined, undefined],
    ['items/', undefined, undefined],
    ['', undefined, undefined],
  ])('“%s” leads to %s', (address, screen, record) => {
    const found = readAddress(compile(LARKFIELD).tree, address);
    expect([found?.screen.id, found?.record]).toEqual([screen, record]);
  });
});
