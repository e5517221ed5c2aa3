import { expect, it } from 'vitest';
import { LARKFIELD } from '@/demo/definition';
import { groupsOf, headingOf, rowsOf, someOf } from '@/ui/studio/prove/compared';
import type { ComparedCell } from '@/contract/studio/proving';

const edit = {
  author: 'Tamsin Reed',
  at: '2026-03-04T10:12:00Z',
  revision: 7,
  says: 'Loans. Now: Auditor: see.',
};
const person = { author: 'Jonah Peel', at: '2026-03-05T09:00:00Z', says: 'got Auditor' };
const cell = (viewer: string, element: string, by: Pick<ComparedCell, 'edit' | 'person'>): ComparedCell => ({
  viewer,
  viewerName: viewer.toUpperCase(),
  element,
  elementName: `Screen ${element}`,
  kind: 'screen',
  before: { least: 0, most: 0 },
  after: { least: 1, most: 1 },
  gains: true,
  ...by,
});
const CELLS = [
  cell('ada', 'loans', { edit }),
  cell('bo', 'loans', { edit }),
  cell('ada', 'stores', { person }),
  cell('cy', 'stores', { person }),
  cell('cy', 'people', { edit, person }),
  cell('dee', 'people', { person: { says: 'was deleted' } }),
  cell('dee', 'loans', {}),
];

it.each([
  [
    'change',
    [
      'Tamsin Reed, 4 Mar 2026, 10:12: Loans. Now: Auditor: see.',
      'Jonah Peel, 5 Mar 2026, 09:00: people got Auditor.',
      'Tamsin Reed, 4 Mar 2026, 10:12: Loans. Now: Auditor: see. And Jonah Peel, 5 Mar 2026, 09:00: CY got Auditor.',
      'Author not recorded: DEE was deleted.',
      'Changes whose cause is no longer known',
    ],
  ],
  ['viewer', ['ADA', 'BO', 'CY', 'DEE']],
  ['element', ['Screen loans', 'Screen stores', 'Screen people']],
] as const)('what differs is told by %s', (by, headings) => {
  const groups = groupsOf(LARKFIELD, CELLS, by);
  expect(groups.map((one) => headingOf(LARKFIELD, one, by))).toEqual(headings);
  expect(groups.flat()).toHaveLength(CELLS.length);
});

it('for whom it is the same is told at once, and of many the first', () => {
  const [loans = [], stores = []] = groupsOf(LARKFIELD, CELLS, 'element');
  expect(rowsOf(loans, 'element').map(({ viewers }) => viewers)).toEqual([['ADA', 'BO'], ['DEE']]);
  expect(rowsOf(stores, 'viewer').map(({ viewers }) => viewers)).toEqual([['ADA'], ['CY']]);
  expect(someOf('abcdefgh'.split(''))).toBe('a, b, c, d, e, f and 2 more');
  expect(someOf(['a', 'b'])).toBe('a and b');
});
