import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accessOf, compile, readDefinition, viewerOfRole } from '@/core';
import { rightNow, SIGNED_OUT } from '@/core/access/deciding/viewer';
import { applicationFrom, emptyApplication, type SheetChoice } from '@/core/making/application';
import { dayIn, type CellKind } from '@/core/making/cell';
import { booleanIn } from '@/core/model/values/boolean';
import { decimalIn, moneyIn } from '@/core/model/values/decimal';
import { guessSheets, lookAt } from '@/core/making/guess';
import { addressFrom, namesOf, titled } from '@/core/making/names';
import { recordsFrom } from '@/core/making/records';
import type { Sheet } from '@/core/making/sheet';
import { readValue } from '@/core/model/value';

const TODAY = '2026-11-26';
const MANNERS = { name: 'Allotments', language: 'en-GB', currency: 'GBP', timeZone: 'Europe/London' };
const sheet = (name: string, columns: readonly string[], rows: readonly (readonly string[])[]): Sheet => ({
  name,
  columns,
  rows: rows.map((cells, n) => ({ line: n + 2, cells })),
});
const times = <T>(n: number, make: (k: number) => T): T[] => Array.from({ length: n }, (_, k) => make(k));
const column = (...cells: string[]): Sheet =>
  sheet(
    'plots',
    ['x'],
    cells.map((one) => [one]),
  );
const guessOf = (...cells: string[]) => guessSheets([column(...cells)], TODAY)[0]?.[0];

describe('one cell', () => {
  it.each([
    ['12', '12'],
    ['1,250.50', '1250.5'],
    ['1.250,50', '1250.5'],
    ['1 250,5', '1250.5'],
    ['1’250', undefined],
    ["1'250", '1250'],
    ['1.250.000', '1250000'],
    ['-3.0', '-3'],
    ['0.75', '0.75'],
    ['0042', undefined],
    ['+44 20', '4420'],
    ['12 kg', undefined],
    ['1.2.3', undefined],
    ['', undefined],
  ])('%j is the number %s', (cell, number) => expect(decimalIn(cell)).toBe(number));

  it.each([
    ['£1,250.50', '1250.5'],
    ['12,50 €', '12.5'],
    ['GBP 3', '3'],
    ['3.125', undefined],
    ['£', undefined],
  ])('%j is the money %s', (cell, money) => expect(moneyIn(cell)).toBe(money));

  it.each([
    ['2026-03-14', 'dmy', '2026-03-14'],
    ['2026-03-14T00:00:00Z', 'dmy', '2026-03-14'],
    ['14/3/2026', 'dmy', '2026-03-14'],
    ['3/14/2026', 'mdy', '2026-03-14'],
    ['3/14/2026', 'dmy', undefined],
    ['14.03.26', 'dmy', '2026-03-14'],
    ['14 March 2026', 'dmy', '2026-03-14'],
    ['31/2/2026', 'dmy', undefined],
    ['20260314', 'ymd', undefined],
    ['1.5', 'dmy', undefined],
  ] as const)('%j, %s, is the day %s', (cell, order, day) => expect(dayIn(cell, order, TODAY)).toBe(day));

  it('is yes or no by its word', () => {
    expect(['yes', 'Y', 'TRUE', '1', 'x'].map(booleanIn)).toEqual(times(5, () => true));
    expect(['no', 'F', 'perhaps'].map(booleanIn)).toEqual([false, undefined, undefined]);
  });
});

describe('names', () => {
  it.each([
    ['loan_items', 'Loan item', 'Loan items'],
    ['categories', 'Category', 'Categories'],
    ['BoxPlots', 'Box plot', 'Box plots'],
    ['bus', 'Bus', 'Buses'],
    ['مواعيد', 'مواعيد', 'مواعيدs'],
  ])('of %j are %j and %j', (file, name, plural) => expect(namesOf(file)).toEqual({ name, plural }));

  it('of columns are headings', () => {
    expect(['due_back', 'dueBack', 'VAT no', 'Due Back'].map(titled)).toEqual([
      'Due back',
      'Due back',
      'VAT no',
      'Due back',
    ]);
  });

  it('give addresses that every screen can have', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 500 }), (words) =>
        /^[a-z0-9]+(-[a-z0-9]+)*$/.test(addressFrom(words, 'records')),
      ),
    );
    expect(addressFrom('Äpfel & Birnen', 'x')).toBe('apfel-birnen');
  });
});

describe('what a column holds', () => {
  it.each<[string, string[], CellKind]>([
    ['whole numbers', ['1', '20', '3'], { kind: 'number', decimals: 0 }],
    ['numbers with a comma', ['1,5', '20,25'], { kind: 'number', decimals: 2 }],
    ['numbers that are names', ['0012', '0013'], { kind: 'text' }],
    ['money', ['£1.50', '£20'], { kind: 'money' }],
    [
      'days, day first, since one cannot be a month',
      ['1/2/2026', '14/2/2026'],
      { kind: 'date', order: 'dmy' },
    ],
    ['days, month first', ['1/2/2026', '2/14/2026'], { kind: 'date', order: 'mdy' }],
    ['yes and no', ['yes', 'no', 'yes', 'no'], { kind: 'boolean' }],
    [
      'a few words again and again',
      times(12, (n) => ['dry', 'wet', 'shade'][n % 3] as string),
      { kind: 'choice' },
    ],
    ['many words', times(12, (n) => `Plot ${n}`), { kind: 'text' }],
    ['long texts', ['short', 'x'.repeat(200)], { kind: 'long' }],
    ['lines', ['one\ntwo', 'three'], { kind: 'long' }],
    ['nothing', ['', ''], { kind: 'text' }],
    ['days in three forms', ['2026-03-14', '14.3.2026', '14 March 2026'], { kind: 'date', order: 'dmy' }],
  ])('is %s', (_, cells, as) => expect(guessOf(...cells)?.as).toEqual(as));

  it('is told with what does not fit, where that is little', () => {
    const cells = [...times(60, (n) => String(n)), 'unknown'];
    const guess = guessOf(...cells);
    expect(guess).toMatchObject({
      as: { kind: 'number', decimals: 0 },
      needed: false,
      misfitCount: 1,
      misfits: [{ line: 62, cell: 'unknown' }],
    });
    expect(guessOf('1', '2', 'unknown')?.as).toEqual({ kind: 'text' });
  });

  it('is needed where every row has it', () => {
    expect(guessOf('a', 'b')?.needed).toBe(true);
    expect(guessOf('a', '')).toMatchObject({ needed: false, empty: 1 });
  });

  it('is looked at again as what somebody chooses', () => {
    const looked = lookAt([column('1', 'two')], 0, 0, 'X', { kind: 'number', decimals: 0 }, TODAY);
    expect(looked).toMatchObject({ name: 'X', misfitCount: 1, examples: ['1'] });
  });
});

const members = sheet(
  'members',
  ['id', 'name', 'e-mail'],
  times(40, (n) => [String(n + 1), `Member ${n}`, `m${n}@plots.example`]),
);
const plots = sheet(
  'plots',
  ['plot', 'size', 'member_id', 'contact', 'beds'],
  times(80, (n) => [
    `P-${n}`,
    `${n}.5`,
    String((n % 30) + 1),
    `m${n % 7}@plots.example`,
    String((n % 9) + 1),
  ]),
);

describe('columns that point to another sheet', () => {
  const [, guessed] = guessSheets([members, plots], TODAY);
  it('do so by their name, or by what stands in them', () => {
    expect(guessed?.map(({ as }) => as)).toEqual([
      { kind: 'text' },
      { kind: 'number', decimals: 1 },
      { kind: 'points', sheet: 0, column: 0 },
      { kind: 'points', sheet: 0, column: 2 },
      // Small numbers, of nothing that is spoken of.
      { kind: 'number', decimals: 0 },
    ]);
  });

  it('tell what points to nothing', () => {
    const odd = sheet('plots', ['member_id'], [...times(40, (n) => [String(n + 1)]), ['99']]);
    expect(guessSheets([members, odd], TODAY)[1]?.[0]).toMatchObject({
      as: { kind: 'points' },
      misfits: [{ line: 42, cell: '99' }],
    });
  });
});

const choicesOf = (sheets: readonly Sheet[]): SheetChoice[] =>
  guessSheets(sheets, TODAY).map((columns, s) => ({
    ...namesOf(sheets[s]?.name ?? ''),
    columns: columns.map(({ name, as, needed }) => ({ name: titled(name) || 'Column', as, needed })),
  }));

describe('an application from sheets', () => {
  const sheets = [members, plots];
  const choices = choicesOf(sheets);
  const made = applicationFrom(MANNERS, sheets, choices);

  it('is sound, and open to its first role only', () => {
    expect(readDefinition(made.definition)).toMatchObject({ ok: true });
    const compiled = compile(made.definition);
    const [role] = made.definition.roles;
    const screens = made.definition.areas.flatMap((area) => area.screens);
    expect(screens.map(({ address }) => address)).toEqual([
      'members',
      'members',
      'members/new',
      'plots',
      'plots',
      'plots/new',
    ]);
    const member = accessOf(compiled, viewerOfRole(role?.id ?? ''), rightNow());
    for (const screen of screens) {
      expect(member.level(member.element(screen.id), undefined)).toBe(2);
      for (const nobody of [SIGNED_OUT, { kind: 'signed-in', assignments: [] } as const])
        expect(accessOf(compiled, nobody, rightNow()).opens(screen, undefined)).toBe(false);
    }
  });

  it('has its rows as records that fit their fields and point to each other', () => {
    const records = [...recordsFrom(made, sheets, choices, TODAY)];
    expect(records).toHaveLength(120);
    const [first, second] = made.sheets;
    const plot = records.find(({ entity }) => entity === second?.entity);
    const member = records.find(({ id }) => id === plot?.values[second?.fields[2] ?? '']);
    expect(member?.entity).toBe(first?.entity);
    expect(member?.values[first?.fields[1] ?? '']).toBe('Member 0');
    for (const { entity, values } of records)
      for (const field of made.definition.entities.find(({ id }) => id === entity)?.fields ?? [])
        expect(readValue(field, values[field.id])).toEqual({ value: values[field.id] ?? null });
  });

  it('is sound whatever the sheets hold', () => {
    const cell = fc.oneof(
      fc.constantFrom('', '0', '1', 'yes', 'no', '2026-01-02', '1/2/2026', '£3', '1,5', 'x'),
      fc.string({ unit: 'grapheme', maxLength: 20 }),
    );
    const drawn = fc.array(
      fc.record({
        name: fc.string({ unit: 'grapheme', minLength: 1, maxLength: 10 }),
        rows: fc.array(fc.tuple(cell, cell, cell), { maxLength: 12 }),
      }),
      { minLength: 1, maxLength: 3 },
    );
    fc.assert(
      fc.property(drawn, (all) => {
        const sheets = all.map(({ name, rows }) => sheet(name, ['a', 'b', 'c'], rows));
        const choices = choicesOf(sheets).map((one) => ({
          ...one,
          name: one.name.trim() || 'Row',
          plural: one.plural.trim() || 'Rows',
        }));
        const made = applicationFrom(MANNERS, sheets, choices);
        const read = readDefinition(made.definition);
        expect(read.ok ? [] : read.problems).toEqual([]);
        for (const { entity, values } of recordsFrom(made, sheets, choices, TODAY))
          for (const field of made.definition.entities.find(({ id }) => id === entity)?.fields ?? [])
            if (field.id in values)
              expect(readValue(field, values[field.id])).toEqual({ value: values[field.id] });
      }),
    );
  });

  it('can begin with nothing', () => {
    expect(readDefinition(emptyApplication(MANNERS))).toMatchObject({ ok: true });
  });
});
