import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { convert, conversionsOf, lostBetween } from '@/core/converting';
import { typeKey } from '@/core/model/values';
import { readValue } from '@/core/model/value';
import type { Value, ValueType } from '@/core/model/value-type';
import { LARKFIELD } from '@/demo/definition';

const text: ValueType = { kind: 'text' };
const whole: ValueType = { kind: 'number', decimals: 0 };
const money: ValueType = { kind: 'money' };
const day: ValueType = { kind: 'date' };
const yes: ValueType = { kind: 'boolean' };
const unit: ValueType = { kind: 'unit' };
const points: ValueType = { kind: 'record', entity: 'item' };
const sizes: ValueType = {
  kind: 'choice',
  options: [
    { id: 's', name: 'Small' },
    { id: 'l', name: 'Large', merged: ['xl'] },
  ],
};
const before: ValueType = {
  kind: 'choice',
  options: [...sizes.options, { id: 'xl', name: 'Huge' }, { id: 'm', name: 'Middling' }],
};
const BY = {
  definition: { language: 'en-GB', units: [{ id: 'hall', name: 'Main hall', units: [] }] },
  today: '2026-11-26',
  pointing: {
    called: (_: string, label: string) => (label.toLowerCase() === 'ewer' ? 'e1' : undefined),
    labelOf: (_: string, id: string) => (id === 'e1' ? 'Ewer' : undefined),
  },
};

describe('a value under another type', () => {
  it.each<[Value, ValueType, ValueType, Value | undefined]>([
    ['12', text, whole, '12'],
    ['1,250', text, whole, '1250'],
    ['12 pcs', text, whole, undefined],
    ['12.5', { kind: 'number', decimals: 1 }, whole, undefined],
    ['£1,250.50', text, money, '1250.5'],
    ['1250.5', money, text, '1250.5'],
    ['14/03/2026', text, day, '2026-03-14'],
    ['31/02/2026', text, day, undefined],
    ['2026-03-14', day, text, '2026-03-14'],
    ['Yes', text, yes, true],
    ['perhaps', text, yes, undefined],
    [true, yes, text, 'yes'],
    [false, yes, whole, undefined],
    ['large', text, sizes, 'l'],
    ['Middling', text, sizes, undefined],
    ['l', before, text, 'Large'],
    ['gone', before, text, undefined],
    ['xl', before, sizes, 'l'],
    ['m', before, sizes, undefined],
    ['s', before, sizes, 's'],
    ['hall', unit, text, 'Main hall'],
    ['main HALL', text, unit, 'hall'],
    ['e1', points, text, 'Ewer'],
    ['e2', points, text, undefined],
    ['Ewer', text, points, 'e1'],
    ['e1', points, { kind: 'record', entity: 'loan' }, 'e1'],
    ['x'.repeat(400), { kind: 'text', long: true }, text, undefined],
  ])('%j of %j is, as %j, %j', (value, from, to, expected) => {
    expect(convert(value, from, to, BY)).toEqual(expected);
  });

  const TYPES = [text, whole, money, day, yes, unit, sizes, before, { kind: 'number', decimals: 2 }] as const;
  it('is one that the type can hold, whatever was stored', () => {
    const values = fc.oneof(
      fc.constantFrom<Value>(
        '12',
        '1.5',
        '-0',
        'yes',
        true,
        false,
        's',
        'xl',
        'hall',
        '2026-02-30',
        '1/2/26',
        '€5',
      ),
      fc.string(),
    );
    fc.assert(
      fc.property(values, fc.constantFrom(...TYPES), fc.constantFrom(...TYPES), (value, from, to) => {
        const next = convert(value, from, to, BY);
        if (next !== undefined && typeKey(from) !== typeKey(to))
          expect(readValue({ id: 'f', name: 'F', type: to }, next)).toEqual({ value: next });
      }),
    );
  });
});

describe('what changes for stored records', () => {
  const [item, ...others] = LARKFIELD.entities;
  if (!item) throw new Error('The demo has items');
  const withType = (id: string, type: ValueType) => ({
    ...LARKFIELD,
    entities: [
      { ...item, fields: item.fields.map((one) => (one.id === id ? { ...one, type } : one)) },
      ...others,
    ],
  });

  it('is nothing where only names do', () => {
    const renamed = { ...LARKFIELD, entities: LARKFIELD.entities.map((one) => ({ ...one, name: 'X' })) };
    expect(conversionsOf(LARKFIELD, renamed)).toEqual([]);
    expect(lostBetween(LARKFIELD, renamed)).toEqual([]);
  });

  it('is each field that holds something else, there and back', () => {
    const made = withType('item_year', whole);
    expect(conversionsOf(LARKFIELD, made).map(({ field, from }) => [field.id, from])).toEqual([
      ['item_year', text],
    ]);
    expect(conversionsOf(made, LARKFIELD).map(({ from }) => from)).toEqual([whole]);
  });

  it('tells what goes, and what is needed', () => {
    const less = {
      ...LARKFIELD,
      entities: [
        {
          ...item,
          fields: item.fields
            .filter(({ id }) => id !== 'item_notes')
            .map((one) => (one.id === 'item_maker' ? { ...one, required: true } : one)),
        },
      ],
    };
    const told = lostBetween(LARKFIELD, less).map(({ what, entity, field }) => [
      what,
      field?.id ?? entity.id,
    ]);
    expect(told).toContainEqual(['field', 'item_notes']);
    expect(told).toContainEqual(['needed', 'item_maker']);
    expect(told).toContainEqual(['entity', 'loan']);
    expect(told).toHaveLength(2 + others.length);
  });
});
