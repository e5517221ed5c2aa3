import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readClock } from '@/core/condition/clock';
import { compareDecimals } from '@/core/condition/atom';
import { foldCase } from '@/core/condition/fold';
import type { Condition } from '@/core/condition/condition';
import { whatIsWrong } from '@/core/condition/check';
import { parse, suggest } from '@/core/condition/parse';
import { print } from '@/core/condition/print';
import { upgradeDefinition, upgradeEdit } from '@/core/model/upgrade';
import { readDefinition } from '@/core/model/schema';
import type { Definition, Entity } from '@/core/model/definition';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawCondition, drawDefinition } from './arbitrary';
import { runs } from '../runs';

const entity = (id: string): Entity => {
  const found = LARKFIELD.entities.find((one) => one.id === id);
  if (!found) throw new Error(`The demo has no entity ${id}`);
  return found;
};
const ofLoan = { definition: LARKFIELD, entity: entity('loan') };
const ofNothing = { definition: LARKFIELD };

function read(scope: { definition: Definition; entity?: Entity }, text: string): Condition {
  const parsed = parse(scope, text);
  if (!parsed.ok)
    throw new Error(`${parsed.problem.place}: ${parsed.problem.message} ${parsed.problem.mend}`);
  return parsed.value;
}

describe('the two forms of a condition', () => {
  it('turn into each other without loss', () => {
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const definition = drawDefinition(draw);
        const one = draw.one(definition.entities);
        const condition = drawCondition(draw, one, 4);
        expect(whatIsWrong({ definition, entity: one }, condition)).toBeUndefined();
        const text = print({ definition, entity: one }, condition);
        expect([text, read({ definition, entity: one }, text)]).toEqual([text, condition]);
      }),
      { numRuns: runs(2000), endOnFailure: true },
    );
  });

  it('keep their meaning when names are odd, twice there, or gone', () => {
    const options = ['Out', 'out', 'Say "no"'].map((name, n) => ({ id: `o${n}`, name }));
    const odd: Entity = {
      ...entity('loan'),
      fields: [
        { id: 'f1', name: 'Due back', type: { kind: 'date' } },
        { id: 'f2', name: 'due-back', type: { kind: 'date' } },
        { id: 'f3', name: '日付', type: { kind: 'date' } },
        { id: 'f4', name: 'Größe', type: { kind: 'choice', options } },
      ],
    };
    const scope = { definition: LARKFIELD, entity: odd };
    const conditions: Condition[] = [
      { all: ['f1', 'f2', 'f3'].map((record) => ({ empty: { record } })) },
      { any: options.map(({ id }) => ({ compare: '=', left: { record: 'f4' }, right: { value: id } })) },
      { any: [{ hasRole: 'gone' }, { not: { all: [] } }, { all: [{ any: [] }] }] },
    ];
    for (const condition of conditions) expect(read(scope, print(scope, condition))).toEqual(condition);
    expect(print(scope, conditions[0] as Condition)).toBe(
      'record.#f1 is empty and record.#f2 is empty and record.#f3 is empty',
    );
    expect(print(scope, conditions[1] as Condition)).toBe(
      'record.gro_e = "Out" or record.gro_e = "out" or record.gro_e = "Say \\"no\\""',
    );
  });
});

describe('what is written', () => {
  it.each<[string, unknown]>([
    ['record.status = "Out"', { compare: '=', left: { record: 'loan_status' }, right: { value: 'out' } }],
    ['record.status is out', { compare: '=', left: { record: 'loan_status' }, right: { value: 'out' } }],
    ['record.fee > 1250.50', { compare: '>', left: { record: 'loan_fee' }, right: { value: '1250.5' } }],
    [
      'record.due_back < today + 7 days',
      { compare: '<', left: { record: 'loan_due' }, right: { clock: 'today', plus: 7 } },
    ],
    [
      'record.item.title contains "ewer"',
      { compare: 'contains', left: { record: 'item_title', through: 'loan_item' }, right: { value: 'ewer' } },
    ],
    ['record.courier is not empty', { not: { empty: { record: 'loan_courier' } } }],
    [
      'record.fee between 10 and 20.50',
      { between: { record: 'loan_fee' }, from: { value: '10' }, to: { value: '20.5' } },
    ],
    [
      'record.due_back is not between today and today + 7 days',
      {
        not: {
          between: { record: 'loan_due' },
          from: { clock: 'today' },
          to: { clock: 'today', plus: 7 },
        },
      },
    ],
    [
      'record.status is one of ("Out", "Returned")',
      { oneOf: { record: 'loan_status' }, values: ['out', 'returned'] },
    ],
    [
      'Record.Item.Title ENDS WITH "EWER" In Any Case',
      {
        compare: 'ends with',
        left: { record: 'item_title', through: 'loan_item' },
        right: { value: 'EWER' },
        anyCase: true,
      },
    ],
    [
      'record.item.title ends with "EWER" in any case',
      {
        compare: 'ends with',
        left: { record: 'item_title', through: 'loan_item' },
        right: { value: 'EWER' },
        anyCase: true,
      },
    ],
    ['user has role "Registrar" everywhere', { hasRole: 'registrar', held: 'everywhere' }],
    ['user has exactly role "Registrar" anywhere', { hasRole: 'registrar', exactly: true, held: 'anywhere' }],
    ['time >= 9:30', { compare: '>=', left: { clock: 'time' }, right: { value: '09:30' } }],
    [
      'weekday not in (Saturday, Sunday)',
      { not: { oneOf: { clock: 'weekday' }, values: ['saturday', 'sunday'] } },
    ],
    ['user has exactly role "Registrar"', { hasRole: 'registrar', exactly: true }],
    [
      'record.item.on_display',
      { compare: '=', left: { record: 'item_shown', through: 'loan_item' }, right: { value: true } },
    ],
  ])('%s', (text, condition) => expect(read(ofLoan, text)).toEqual(condition));

  it.each<[string, number, RegExp, RegExp]>([
    ['record.statsu = "Out"', 7, /no field of Loan “statsu”/, /Did you mean record\.status\?/],
    ['record.status = "Ouut"', 16, /not one of/, /Did you mean "Out"\?/],
    ['record.due_back = "soon"', 18, /not a date/, /2026-03-14/],
    ['record.fee = "12"', 13, /not a number/, /12\.50/],
    ['record.due_back < now', 18, /a date cannot be compared with a date and time/, /Compare it with a date/],
    ['record.fee contains 5', 0, /“contains” cannot be used/, /Use =/],
    ['user has role "Registar"', 14, /no role/, /Did you mean "Registrar"\?/],
    ['record.status =', 15, /missing/, /record/],
    ['(record.status = "Out"', 22, /\) is missing/, /Add \)/],
    ['record.status = ‘Out’', 16, /no meaning/, /straight double quotes/],
    ['record.item.title in any case contains "ewer"', 18, /must come at the end/, /… contains/],
    ['"a" = "b"', 0, /always gives the same/, /Use a field/],
    ['record.status = "Out" record.fee > 1', 22, /is not allowed here/, /“and” or “or”/],
  ])('%s is refused at its place', (text, from, message, mend) => {
    const parsed = parse(ofLoan, text);
    expect(parsed.ok ? 'accepted' : parsed.problem).toMatchObject({
      span: { from },
      message: expect.stringMatching(message),
      mend: expect.stringMatching(mend),
    });
  });

  it.each<[string, string | undefined, string | undefined]>([
    ['record.statsu = "Out"', 'status', undefined],
    ['record.status = "Ouut"', '"Out"', undefined],
    ['user has role "Registar"', '"Registrar"', undefined],
    ['(record.status = "Out"', ')', undefined],
    ['record.fee = "12"', undefined, undefined],
    // A text where a record is meant: one is to be picked.
    ['record.item = "Blue ewer"', undefined, 'item'],
  ])('mends “%s” by what stands in the place of the fault', (text, fix, pick) => {
    const parsed = parse(ofLoan, text);
    if (parsed.ok) throw new Error('It was to be wrong');
    expect([parsed.problem.fix, parsed.problem.pick]).toEqual([fix, pick]);
    if (fix === undefined) return;
    const { from, to } = parsed.problem.span;
    expect(parse(ofLoan, text.slice(0, from) + fix + text.slice(to)).ok).toBe(true);
  });

  it('refuses a text for a record in a file as well, and tells what to do', () => {
    const loan = LARKFIELD.entities.find(({ id }) => id === 'loan');
    const scope = { definition: LARKFIELD, entity: loan };
    const asks = (value: string) =>
      whatIsWrong(scope, { compare: '=', left: { record: 'loan_item' }, right: { value } });
    expect(asks('Blue ewer')?.mend).toMatch(/^Choose an Item/);
    expect(asks('0b0f5a52-6d9e-4f0e-9c3b-6f1a2d3c4e5f')).toBeUndefined();
  });

  it.each([
    ['É', 'é'],
    ['STRASSE', 'strasse'],
    ['İ', 'İ'],
    ['ΣΊΣΥΦΟΣ', 'σίσυφοσ'],
  ])('takes capitals as small letters, one for one: %s', (text, folded) =>
    expect(foldCase(text)).toBe(folded),
  );

  it('asks of no record where there is none', () => {
    const parsed = parse(ofNothing, 'record.status = "Out"');
    expect(parsed.ok ? '' : parsed.problem.message).toBe('No record is available here.');
  });

  it('can be completed: operands, then operators, then values', () => {
    const offered = (text: string) => suggest(ofLoan, text, text.length).offers.map((one) => one.text);
    expect(offered('')).toEqual(
      expect.arrayContaining(['record.status', 'user.email', 'record.item.title', 'today']),
    );
    expect(offered('record.st')).toContain('status');
    expect(offered('record.item.')).toContain('title');
    expect(offered('record.status ')).toEqual(expect.arrayContaining(['=', '!=', 'in (', 'is empty']));
    expect(offered('record.status = ')).toEqual(expect.arrayContaining(['"Out"', '"Returned"']));
    expect(offered('record.status = "Re')).toEqual(expect.arrayContaining(['"Returned"', '"Requested"']));
    expect(offered('record.due_back < ')).toEqual(expect.arrayContaining(['today', 'record.start']));
    expect(offered('record.due_back < ')).not.toContain('record.status');
    expect(offered('user has role ')).toContain('"Head of collections"');
    expect(offered('record.status = "Out" ')).toEqual(['and', 'or']);
  });
});

describe('the clock', () => {
  it.each([
    ['2026-03-29T00:59:59Z', 'Europe/London', '2026-03-29T00:59:59', 'sunday'],
    ['2026-03-29T01:00:00Z', 'Europe/London', '2026-03-29T02:00:00', 'sunday'],
    ['2026-12-31T23:30:00Z', 'Asia/Kathmandu', '2027-01-01T05:15:00', 'friday'],
  ])('%s in %s is %s', (moment, zone, now, weekday) => {
    expect(readClock(Date.parse(moment), zone)).toMatchObject({ now, weekday, today: now.slice(0, 10) });
  });

  it('puts decimals in order that doubles cannot tell apart', () => {
    expect(compareDecimals('123456789012345.1', '123456789012345.10000001')).toBeLessThan(0);
    expect(compareDecimals('-0.01', '0')).toBeLessThan(0);
    expect(compareDecimals('10', '9.5')).toBeGreaterThan(0);
  });
});

describe('a document of the first format', () => {
  it('is brought to the present one', () => {
    const {
      timeZone,
      signUp,
      privileges,
      units,
      attributes,
      groups,
      conditions,
      sessionValues,
      closed,
      ...rest
    } = LARKFIELD;
    expect([
      timeZone,
      signUp,
      privileges,
      units,
      attributes,
      groups,
      conditions,
      sessionValues,
      closed,
    ]).toHaveLength(9);
    const old = {
      ...rest,
      format: 1,
      roles: [{ id: 'a', name: 'A', includes: [] }],
      entities: [],
      areas: [],
      gates: { larkfield: { lines: [] } },
      menu: { id: 'menu', items: [] },
      startScreen: undefined,
      unlock: undefined,
      standIn: undefined,
    };
    expect(readDefinition(upgradeDefinition(JSON.parse(JSON.stringify(old))))).toMatchObject({ ok: true });
    expect(upgradeEdit({ kind: 'list', filter: { field: 'f', equals: true } }, 1)).toEqual({
      kind: 'list',
      filter: { compare: '=', left: { record: 'f' }, right: { value: true } },
    });
  });
});
