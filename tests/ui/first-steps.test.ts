import { describe, expect, it } from 'vitest';
import { LARKFIELD } from '@/demo/definition';
import type { Definition } from '@/core/model';
import { type Progress, stepsOf } from '@/ui/studio/shell/first-steps';

/** The application as it is made from files: one role, and nobody in it. */
const [first] = LARKFIELD.roles;
const MADE: Definition = {
  ...LARKFIELD,
  roles: [{ ...(first as NonNullable<typeof first>), name: 'Member', includes: [] }],
};
/** Nobody gets any screen of it. */
const CLOSED: Definition = {
  ...LARKFIELD,
  gates: Object.fromEntries(LARKFIELD.areas.map(({ id }) => [id, { lines: [] }])),
};
const NOTHING: Progress = { definition: MADE, people: undefined, findings: undefined, seen: new Set() };
const doneOf = (progress: Partial<Progress>): string[] =>
  stepsOf({ ...NOTHING, ...progress }).flatMap(({ name, done }) => (done ? [name] : []));
const ALL_SEEN = new Set(['shape', 'gates', ...LARKFIELD.roles.map(({ id }) => `role:${id}`)]);

describe('the steps to the first release', () => {
  it('are all to be done at first, and each leads to its bench', () => {
    expect(doneOf({})).toEqual([]);
    expect(stepsOf(NOTHING).map(({ bench }) => bench)).toEqual([
      ...['shape', 'people', 'people', 'gates', 'look', 'prove', 'release'],
    ]);
  });

  it.each<[string, Partial<Progress>, string[]]>([
    ['screens that were looked at', { seen: new Set(['shape']) }, ['Check screens and data']],
    ['gates that were looked at, with the first role alone', { seen: new Set(['gates']) }, []],
    ['people', { people: 1 }, ['Add people']],
    ['nobody', { people: 0 }, []],
    ['no findings', { findings: 0 }, ['Resolve findings']],
    ['a finding', { findings: 1 }, []],
    ['roles with names of their own', { definition: LARKFIELD }, ['Name roles']],
    ['a role without a screen', { definition: CLOSED, seen: new Set(['gates']) }, ['Name roles']],
    [
      'one role that was not looked as',
      { definition: LARKFIELD, seen: new Set([...ALL_SEEN].slice(0, -1)) },
      ['Check screens and data', 'Name roles', 'Decide who gets which screen'],
    ],
    [
      'all but the release',
      { definition: LARKFIELD, people: 62, findings: 0, seen: ALL_SEEN },
      stepsOf(NOTHING)
        .map(({ name }) => name)
        .slice(0, -1),
    ],
  ])('are ticked by what there is: %s', (_, progress, done) => {
    expect(doneOf(progress)).toEqual(done);
  });
});
