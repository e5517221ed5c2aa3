import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { EntityField, TextCheck } from '@/core/model/definition';
import { readValue } from '@/core/model/value';
import { showValue } from '@/core/model/values';
import { plainDecimal } from '@/core/model/values/decimal';
import type { ValueType } from '@/core/model/value-type';

const field = (type: ValueType, required = false): EntityField => ({
  id: 'f',
  name: 'Field',
  type,
  required,
});
const MANNER = { language: 'en-GB', currency: 'GBP', units: [] };
const choice: ValueType = { kind: 'choice', options: [{ id: 'a', name: 'First' }] };

describe('reading a value', () => {
  it.each([
    [{ kind: 'money' }, '007.50', '7.5'],
    [{ kind: 'money' }, '-0.00', '0'],
    [{ kind: 'money' }, '1.234', undefined],
    [{ kind: 'money' }, 'a lot', undefined],
    [{ kind: 'money' }, 12, undefined],
    [{ kind: 'number', decimals: 0 }, '12', '12'],
    [{ kind: 'number', decimals: 0 }, '1.5', undefined],
    [{ kind: 'date' }, '2026-02-28', '2026-02-28'],
    [{ kind: 'date' }, '2026-02-30', undefined],
    [{ kind: 'date' }, '28/02/2026', undefined],
    [{ kind: 'boolean' }, true, true],
    [{ kind: 'boolean' }, 'true', undefined],
    [choice, 'a', 'a'],
    [choice, 'b', undefined],
    [{ kind: 'text' }, ' kept ', ' kept '],
    [{ kind: 'text' }, '  ', null],
    [{ kind: 'text' }, 'x'.repeat(301), undefined],
    [{ kind: 'text' }, 'a\0b', undefined],
    [{ kind: 'text' }, '\ud800', undefined],
    [{ kind: 'text' }, 'é 漢 😀', 'é 漢 😀'],
    [{ kind: 'text' }, { toString: 'x' }, undefined],
  ] as [ValueType, unknown, unknown][])('%j reads %j as %j', (type, raw, value) => {
    const reading = readValue(field(type), raw);
    if (value === undefined) expect(reading).toHaveProperty('problem');
    else expect(reading).toEqual({ value });
  });

  it.each<[TextCheck, string, boolean]>([
    [{ form: 'email' }, 'ada@example.com', true],
    [{ form: 'email' }, 'ada@', false],
    [{ form: 'web' }, 'https://example.com/a?b', true],
    [{ form: 'web' }, 'javascript:alert(1)', false],
    [{ form: 'telephone' }, '+44 (20) 7946-0100', true],
    [{ form: 'telephone' }, '+44 1234567890123456', false],
    [{ form: 'telephone' }, '12', false],
    [{ form: 'digits' }, '0042', true],
    [{ form: 'digits' }, '4.2', false],
    [{ most: 3 }, 'abc', true],
    [{ most: 3 }, 'abcd', false],
    [{ most: 3, form: 'digits' }, '12x', false],
  ])('checks %j: %j is %j', (check, text, fits) => {
    expect('value' in readValue({ ...field({ kind: 'text' }), check }, text)).toBe(fits);
    // What is empty needs no form.
    expect(readValue({ ...field({ kind: 'text' }), check }, '')).toEqual({ value: null });
  });

  it('asks for what is needed', () => {
    for (const empty of ['', ' ', null, undefined])
      expect(readValue(field({ kind: 'text' }, true), empty)).toEqual({ problem: 'Field is required.' });
  });

  it('writes equal decimals in one way', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e9, max: 1e9 }), fc.integer({ min: 0, max: 3 }), (cents, zeros) => {
        const text = (cents / 100).toFixed(2);
        const plain = plainDecimal(text);
        expect(Number(plain)).toBe(Number(text));
        expect(plainDecimal(plain)).toBe(plain);
        expect(plainDecimal(text.replace(/^-?/, (sign) => sign + '0'.repeat(zeros)))).toBe(plain);
      }),
    );
  });
});

describe('showing a value', () => {
  it.each([
    [{ kind: 'money' }, '7319284.5', '£7,319,284.50'],
    [{ kind: 'money' }, '123456789012345.67', '£123,456,789,012,345.67'],
    [{ kind: 'money' }, '18400', '£18,400.00'],
    [{ kind: 'date' }, '2026-03-14', '14 Mar 2026'],
    [{ kind: 'boolean' }, false, 'No'],
    [choice, 'gone', ''],
    [{ kind: 'text' }, null, ''],
  ] as const)('%j shows %j as %j', (type, value, text) => {
    expect(showValue(type, value, MANNER)).toBe(text);
  });
});
