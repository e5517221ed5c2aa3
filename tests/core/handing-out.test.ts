import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Grants } from '@/core/access/deciding/grants';
import { comparedAttributes, HandingOut } from '@/core/access/questions/handing-out';
import { rightNow, viewerOfPerson, type Assignment, type Person } from '@/core/access/deciding/viewer';
import type { Definition, Role } from '@/core/model/definition';
import { unitAndBelow } from '@/core/model/units';
import { LARKFIELD } from '@/demo/definition';

const NOTHING: Definition = {
  ...LARKFIELD,
  groups: [],
  conditions: [],
  areas: [],
  menu: { id: 'menu', items: [] },
  gates: {},
  units: [
    {
      id: 'all',
      name: 'All',
      units: [
        { id: 'north', name: 'North', units: [{ id: 'shed', name: 'Shed', units: [] }] },
        { id: 'south', name: 'South', units: [] },
      ],
    },
  ],
};
const role = (id: string, more: Partial<Role> = {}): Role => ({
  id,
  name: id,
  includes: [],
  privileges: [],
  ...more,
});
const ROLES = [
  role('helper'),
  role('lead', { includes: ['helper'], handsOut: [{ role: 'helper' }] }),
  role('chief', { includes: ['lead'] }),
  role('clerk', { handsOut: [{ role: 'helper', notHeld: true }, { role: 'chief' }] }),
  role('setter', { setsCompared: true, handsOut: [{ role: 'helper', notHeld: true }] }),
];
const person = (id: string, assignments: Assignment[], home?: string): Person => ({
  id,
  name: id,
  active: true,
  assignments,
  attributes: { home_unit: home ?? null },
});
const by = (assignments: Assignment[], more: Partial<Definition> = {}): HandingOut => {
  const definition = { ...NOTHING, roles: ROLES, ...more };
  return new HandingOut(
    new Grants(definition, viewerOfPerson(person('self', assignments)), rightNow()),
    'self',
  );
};
const helper = { role: 'helper' };

describe('who looks after people inside the application', () => {
  it.each<[string, Assignment[], Assignment, boolean]>([
    ['gives what their role hands out and they hold', [{ role: 'lead' }], helper, true],
    ['gives what a role hands out that theirs includes', [{ role: 'chief' }], helper, true],
    ['gives nothing without a role that hands out', [helper], helper, false],
    ['gives what they do not hold, where that was granted', [{ role: 'clerk' }], helper, true],
    ['gives nothing that they do not hold, where it was not', [{ role: 'clerk' }], { role: 'chief' }, false],
    ['gives it once they hold it', [{ role: 'clerk' }, { role: 'chief' }], { role: 'chief' }, true],
    ['gives it in their own unit', [{ role: 'lead', unit: 'north' }], { ...helper, unit: 'north' }, true],
    ['gives it below their own unit', [{ role: 'lead', unit: 'north' }], { ...helper, unit: 'shed' }, true],
    ['not beside it', [{ role: 'lead', unit: 'north' }], { ...helper, unit: 'south' }, false],
    ['not above it', [{ role: 'lead', unit: 'north' }], { ...helper, unit: 'all' }, false],
    ['not everywhere', [{ role: 'lead', unit: 'north' }], helper, false],
    [
      'not in a unit that has been deleted',
      [{ role: 'lead', unit: 'north' }],
      { ...helper, unit: 'gone' },
      false,
    ],
    [
      'only where they both hold what is given and may give',
      [
        { role: 'clerk', unit: 'north' },
        { role: 'chief', unit: 'south' },
      ],
      { role: 'chief', unit: 'south' },
      false,
    ],
    ['gives nothing after their time', [{ role: 'lead', until: '2020-01-01T00:00:00Z' }], helper, false],
  ])('%s', (_, assignments, given, may) => {
    expect(by(assignments).mayHandOut(given)).toBe(may);
  });

  it.each<[string, Assignment[], Person, boolean]>([
    ['not themselves', [{ role: 'lead' }], person('self', []), false],
    ['anybody, where they hold it everywhere', [{ role: 'lead' }], person('bo', []), true],
    ['whose home is below their unit', [{ role: 'lead', unit: 'north' }], person('bo', [], 'shed'), true],
    ['not whose home is elsewhere', [{ role: 'lead', unit: 'north' }], person('bo', [], 'south'), false],
    ['not who has no home', [{ role: 'lead', unit: 'north' }], person('bo', []), false],
    ['nobody, who hands out nothing', [helper], person('bo', [], 'north'), false],
  ])('looks after people: %s', (_, assignments, other, may) => {
    expect(by(assignments).mayLookAfter(other)).toBe(may);
  });

  it('says whose people they are by units', () => {
    expect(by([{ role: 'lead' }]).units()).toBeUndefined();
    expect([...(by([{ role: 'lead', unit: 'north' }]).units() ?? [])].sort()).toEqual(['north', 'shed']);
    expect(by([helper]).units()).toEqual(new Set());
  });

  it('touches no account that holds more than they hold or may give', () => {
    const lead = by([{ role: 'lead' }]);
    expect(lead.holdsNoMore(person('bo', [helper, { role: 'lead' }]))).toBe(true);
    expect(lead.holdsNoMore(person('bo', [helper, { role: 'chief' }]))).toBe(false);
    // The role is held in a unit only: holding it everywhere would be more.
    expect(by([{ role: 'lead', unit: 'north' }]).holdsNoMore(person('bo', [{ role: 'lead' }]))).toBe(false);
  });

  it('sets no attribute that access depends on, unless that was granted everywhere', () => {
    const gates = {
      [LARKFIELD.id]: { lines: [{ id: 'l', who: { kind: 'unit', unit: 'north' }, what: 'see' }] },
    } as const;
    expect(comparedAttributes({ ...NOTHING, gates })).toEqual(new Set(['home_unit']));
    expect(by([{ role: 'lead' }], { gates }).notToBeSet(['home_unit', 'name'])).toEqual(['home_unit']);
    expect(by([{ role: 'setter' }], { gates }).notToBeSet(['home_unit', 'name'])).toEqual([]);
    expect(by([{ role: 'setter', unit: 'north' }], { gates }).notToBeSet(['home_unit'])).toEqual([
      'home_unit',
    ]);
  });

  it('gives an account to another address only where nothing depends on whose it is', () => {
    const bo = person('bo', [helper]);
    expect(by([{ role: 'lead' }]).mayReaddress(bo)).toBe(true);
    const line = (who: object) => ({ [LARKFIELD.id]: { lines: [{ id: 'l', who, what: 'see' }] } }) as never;
    expect(by([{ role: 'lead' }], { gates: line({ kind: 'person', person: 'bo' }) }).mayReaddress(bo)).toBe(
      false,
    );
    expect(by([{ role: 'lead' }], { gates: line({ kind: 'unit', unit: 'all' }) }).mayReaddress(bo)).toBe(
      false,
    );
    expect(by([{ role: 'setter' }], { gates: line({ kind: 'unit', unit: 'all' }) }).mayReaddress(bo)).toBe(
      true,
    );
    expect(by([{ role: 'lead' }]).mayReaddress(person('bo', [{ role: 'chief' }]))).toBe(false);
  });

  it('hands out nothing above what is held, whatever the roles are, unless that was granted', () => {
    const units = [undefined, 'all', 'north', 'south', 'shed'];
    const ids = ['r0', 'r1', 'r2', 'r3'];
    const drawn = fc.record({
      includes: fc.array(fc.tuple(fc.nat(3), fc.nat(3)), { maxLength: 4 }),
      handsOut: fc.array(fc.tuple(fc.nat(3), fc.nat(3)), { maxLength: 5 }),
      held: fc.array(fc.record({ role: fc.constantFrom(...ids), unit: fc.constantFrom(...units) }), {
        maxLength: 3,
      }),
      given: fc.record({ role: fc.constantFrom(...ids), unit: fc.constantFrom(...units) }),
    });
    const clean = (all: { role: string; unit: string | undefined }[]): Assignment[] =>
      all.map((one) => ({ role: one.role, ...(one.unit && { unit: one.unit }) }));
    fc.assert(
      fc.property(drawn, ({ includes, handsOut, held, given }) => {
        const roles = ids.map((id, n) =>
          role(id, {
            // Downwards only, so that there are no loops.
            includes: includes.flatMap(([from, to]) => (from === n && to < n ? [`r${to}`] : [])),
            handsOut: handsOut.flatMap(([from, to]) => (from === n ? [{ role: `r${to}` }] : [])),
          }),
        );
        const definition = { ...NOTHING, roles };
        const giver = new Grants(definition, viewerOfPerson(person('self', clean(held))), rightNow());
        const [one] = clean([given]) as [Assignment];
        if (!new HandingOut(giver, 'self').mayHandOut(one)) return;
        const receiver = new Grants(definition, viewerOfPerson(person('bo', [one])), rightNow());
        for (const [id, where] of receiver.roles) {
          const own = giver.roles.get(id);
          if (own === 'everywhere') continue;
          expect(where).not.toBe('everywhere');
          for (const unit of where as ReadonlySet<string>) expect(own?.has(unit)).toBe(true);
        }
        if (one.unit) expect(unitAndBelow(definition, one.unit)).toBeDefined();
      }),
    );
  });
});
