import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rightNow, viewerOfPerson, viewerOfRole } from '@/core/access/deciding/viewer';
import { causesOf } from '@/core/edit/comparing/causes';
import { changeInWords, closedInWords } from '@/core/edit/comparing/change-words';
import { difference } from '@/core/edit/comparing/difference';
import { stacksOf, undoStateOf, type LogEntry } from '@/core/edit/edits/history';
import { directionOf } from '@/core/edit/comparing/review';
import { opensOf } from '@/core/edit/comparing/opening';
import { compareReach } from '@/core/edit/comparing/access-differences';
import type { Condition } from '@/core/condition/condition';
import type { Definition } from '@/core/model/definition';
import type { Gate, Line } from '@/core/model/gate';
import { LARKFIELD } from '@/demo/definition';

/** The demo with some of its document another one. */
const changed = (change: (draft: Mutable<Definition>) => void): Definition => {
  const draft = structuredClone(LARKFIELD) as Mutable<Definition>;
  change(draft);
  return draft as Definition;
};
type Mutable<T> = { -readonly [K in keyof T]: T[K] extends object ? Mutable<T[K]> : T[K] };

const told = (after: Definition): string[] =>
  difference(LARKFIELD, after).flatMap((change) => {
    const { about, done } = changeInWords(change, LARKFIELD, after, () => undefined);
    return done.map((one) => `${about}: ${one}`);
  });
const first = <T>(list: readonly T[]): T => {
  const [one] = list;
  if (one === undefined) throw new Error('The demo has none of these');
  return one;
};

describe('a change in words', () => {
  it.each<[string, (draft: Mutable<Definition>) => void, RegExp]>([
    ['the name', (draft) => void (draft.name = 'Another desk'), /^Another desk: Name: .*Another desk/],
    ['the language', (draft) => void (draft.language = 'de'), /Language: “en-GB” → “de”/],
    ['signing up', (draft) => void (draft.signUp = !draft.signUp), /(yes|no) → (yes|no)/],
    ['the order of roles', (draft) => void draft.roles.reverse(), /^Roles: Their order changed\./],
    [
      'a role’s start screen',
      (draft) => void (first(draft.roles).startScreen = 's_loans'),
      /^Role Volunteer: Start screen set to Loan list\./,
    ],
    [
      'a role’s description',
      (draft) => void (first(draft.roles).description = 'Helps out'),
      /Description changed to “Helps out”/,
    ],
    [
      'a unit’s name',
      (draft) => void (first(draft.units).name = 'Larkfield House'),
      /Unit Larkfield House: Name/,
    ],
    [
      'a group’s condition',
      (draft) => void (first(draft.groups).condition = { hasRole: 'registrar' }),
      /Condition: .* → user has role "Registrar"/,
    ],
    [
      'a named condition that is new',
      (draft) => void draft.conditions.push({ id: 'c_new', name: 'Never', condition: { any: [] } }),
      /^Condition Never: Added: any\(\)\./,
    ],
    [
      'a privilege more',
      (draft) => void first(draft.privileges).privileges.push({ id: 'q_new', name: 'Weigh pieces' }),
      /Added “Weigh pieces”/,
    ],
    [
      'how long a session value holds',
      (draft) => void (first(draft.sessionValues).minutes = 7),
      /Duration in minutes: 240 → 7/,
    ],
    [
      'a screen’s address',
      (draft) => void (first(first(draft.areas).screens).address = 'pieces-to-see'),
      /Address: “catalogue” → “pieces-to-see”/,
    ],
    [
      'the order of screens',
      (draft) => void draft.areas.find(({ screens }) => screens.length > 1)?.screens.reverse(),
      /Moved within /,
    ],
    ['the order of menu items', (draft) => void draft.menu.items.reverse(), /Moved within Menu/],
    [
      'what a field checks',
      (draft) => {
        const entity = first(draft.entities);
        const field = entity.fields.find(({ id }) => id === 'item_maker');
        if (field) field.required = true;
      },
      /Maker \(data\): Required: nothing → yes\./,
    ],
    [
      'what closed elements show',
      (draft) => void (draft.closed['p_item_value'] = { show: 'locked' }),
      /What people without access see: nothing \(hidden\) → its label and a lock\./,
    ],
  ])('tells %s', (_, change, words) => {
    expect(told(changed(change)).some((one) => words.test(one))).toBe(true);
  });

  it('says what closed screens answer', () => {
    expect(
      (
        [
          undefined,
          { show: 'explained', text: 'Ask us' },
          { show: 'refused', text: 'Closed' },
          { show: 'sent', screen: 's_loans' },
          { show: 'secret' },
        ] as const
      ).map((closed) => closedInWords(closed, LARKFIELD)),
    ).toEqual([
      'nothing (hidden)',
      'its label, and “Ask us” when used',
      '“Closed”',
      'a redirect to Loan list',
      '“Page not found”',
    ]);
  });
});

describe('what follows from a change', () => {
  const everybody = LARKFIELD.roles.map(({ id }) => ({ key: id, viewer: viewerOfRole(id) }));
  const causes = (after: Definition): Map<string, string | undefined> => {
    const elements = new Set(
      difference(LARKFIELD, after).flatMap((one) => ('element' in one ? [one.element] : [])),
    );
    const causeOf = causesOf(LARKFIELD, after, elements);
    const shifts = compareReach(LARKFIELD, after, everybody, rightNow());
    return new Map(shifts.map(({ element }) => [element, causeOf(element)]));
  };

  it('comes from the nearest that was changed: a screen closes all that is on it and leads to it', () => {
    const after = changed((draft) => void (draft.gates['s_stores'] = { lines: [] }));
    const found = causes(after);
    expect(found.size).toBeGreaterThan(3);
    expect([...new Set(found.values())]).toEqual(['s_stores']);
    expect(found.get('m_stores')).toBe('s_stores');
  });

  it('tells two causes apart', () => {
    const after = changed((draft) => {
      draft.gates['s_stores'] = { lines: [] };
      draft.gates['s_loans'] = { lines: [] };
    });
    const found = causes(after);
    expect(found.get('m_stores')).toBe('s_stores');
    expect(found.get('m_loans')).toBe('s_loans');
  });

  it('comes from no element where a role is another one', () => {
    const after = changed((draft) => {
      const curator = draft.roles.find(({ id }) => id === 'curator');
      curator?.includes.push('registrar');
    });
    expect([...new Set(causes(after).values())]).toEqual([undefined]);
  });

  it.each([
    [[0, 0], [2, 2], undefined, 'gain'],
    [[2, 2], [0, 2], undefined, 'lose'],
    [[0, 2], [0, 2], undefined, 'other'],
    [[0, 2], [0, 2], [3, 0], 'gain'],
    [[0, 2], [0, 2], [0, 3], 'lose'],
    [[0, 2], [0, 2], [2, 3], 'other'],
  ] as const)('from %j to %j with %j records more and less is “%s”', (before, after, records, direction) => {
    const answer = ([least, most]: readonly [0 | 1 | 2, 0 | 1 | 2]) => ({ least, most });
    const counts = records && { gained: records[0], lost: records[1], of: 9 };
    expect(
      directionOf({
        before: answer(before),
        after: answer(after),
        ...(counts && { records: { of: 'Ada', gained: [], lost: [], counts } }),
      }),
    ).toBe(direction);
  });
});

describe('what differs at another time', () => {
  const evening = { moment: Date.UTC(2026, 10, 25, 20) };
  const auditor = { id: 'p', name: 'P', active: true, assignments: [{ role: 'auditor' }], attributes: {} };
  const viewers = [{ key: 'auditor', viewer: viewerOfPerson(auditor) }];
  const hours = (from: string, until: string): Condition => ({
    all: [
      { compare: '>=', left: { clock: 'time' }, right: { value: from } },
      { compare: '<', left: { clock: 'time' }, right: { value: until } },
    ],
  });
  const weekend: Condition = { oneOf: { clock: 'weekday' }, values: ['saturday', 'sunday'] };
  const day = (value: string): Condition => ({ compare: '=', left: { clock: 'day' }, right: { value } });
  const date = (value: string, plus = 0): Condition => ({
    compare: '=',
    left: { clock: 'today', plus },
    right: { value },
  });
  const stock: Condition = { compare: '=', left: { session: 'sv_stock' }, right: { value: true } };
  const opens = (when: Condition): Definition =>
    changed((draft) => {
      const line = { id: 'l', who: { kind: 'role', role: 'auditor' }, what: 'see', when } as const;
      draft.gates['s_stores'] = { lines: [line] } as Mutable<Gate>;
    });

  it.each<[string, Condition, Condition, boolean]>([
    ['other hours, both later on', hours('09:00', '17:00'), hours('09:00', '17:30'), true],
    ['an hour of the day, and taking stock', hours('09:00', '17:00'), stock, true],
    ['only what is set to no', hours('09:00', '09:00'), { ...stock, right: { value: false } }, true],
    ['hours at the weekend only', hours('09:00', '17:00'), { all: [hours('09:00', '17:00'), weekend] }, true],
    ['another day of the month', day('20'), day('21'), true],
    ['a day that few months have', day('20'), { any: [day('20'), day('31')] }, true],
    ['another date', date('2027-02-03'), date('2027-02-04'), true],
    ['days before a date, said otherwise', date('2027-02-03', 3), date('2027-01-31'), false],
    ['the same, said otherwise', hours('09:00', '17:00'), { not: { not: hours('09:00', '17:00') } }, false],
  ])('is told: %s', (_, before, after, differs) => {
    const shifts = compareReach(opens(before), opens(after), viewers, evening);
    const found = shifts.find(({ element }) => element === 's_stores')?.groups ?? [];
    expect(found.map(({ elsewhen, who }) => [elsewhen, who])).toEqual(differs ? [[true, ['auditor']]] : []);
  });
});

describe('what is opened of the data', () => {
  const at = { moment: Date.UTC(2026, 10, 25, 10) };
  const lender = { id: 'p', name: 'P', active: true, assignments: [{ role: 'lender' }], attributes: {} };
  const opened = (change: (draft: Mutable<Definition>) => void) => {
    const after = changed(change);
    const people = [{ key: 'p', viewer: viewerOfPerson(lender) }];
    return opensOf(LARKFIELD, after, compareReach(LARKFIELD, after, people, at), at).map((one) => ({
      ...one,
      people: [...one.people],
    }));
  };
  const seen = (who: Line['who'], what: 'see' | 'block' = 'see') => ({ lines: [{ id: 'l', who, what }] });

  it('is told with every kind of viewer that gets it, who is signed out first, and with people have access', () => {
    const found = opened((draft) => {
      draft.gates['item_value'] = seen({ kind: 'everyone' }) as Mutable<Gate>;
      draft.gates['loan'] = seen({ kind: 'role', role: 'lender' }) as Mutable<Gate>;
    });
    expect(found[0]).toMatchObject({ about: 'Items', what: ['Insurance value'] });
    expect(found[0]?.kinds.slice(0, 2)).toEqual(['Signed out', 'Signed in']);
    const loans = found.find(({ what }) => what.includes('the records themselves'));
    expect(loans).toMatchObject({ about: 'Loans', kinds: ['Lender'], people: ['p'] });
  });

  it('is nothing where nothing of the data opens', () => {
    expect(opened((draft) => void (draft.gates['item_value'] = { lines: [] } as Mutable<Gate>))).toEqual([]);
    expect(opened((draft) => void (draft.name = 'Another desk'))).toEqual([]);
  });
});

describe('undo and redo', () => {
  it('never come back to what was skipped, and redo what was undone in order', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('edit', 'undo', 'redo', 'skip')), (steps) => {
        const log: LogEntry[] = [];
        const skipped = new Set<number>();
        for (const step of steps) {
          const { undo, redo } = stacksOf(log);
          const revision = log.length + 1;
          if (step === 'edit') log.push({ revision });
          const last = undo.at(-1);
          if (step === 'undo' && last !== undefined) log.push({ revision, undoes: last });
          const taken = redo.at(-1);
          if (step === 'redo' && taken !== undefined) log.push({ revision, redoes: taken });
          const before = undo.at(-2);
          if (step === 'skip' && last !== undefined && before !== undefined) {
            log.push({ revision, undoes: before, skips: [last] });
            skipped.add(last);
          }
          const now = stacksOf(log);
          for (const one of [...now.undo, ...now.redo]) expect(skipped.has(one)).toBe(false);
          expect(new Set([...now.undo, ...now.redo]).size).toBe(now.undo.length + now.redo.length);
          expect(undoStateOf(log).undo).toBe(now.undo.at(-1));
          if (step === 'undo' && last !== undefined) expect(now.redo.at(-1)).toBe(last);
          if (step === 'redo' && taken !== undefined) expect(now.undo.at(-1)).toBe(taken);
        }
      }),
    );
  });
});
