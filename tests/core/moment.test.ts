import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isMoment } from '@/core/model/moment';

describe('a moment (RFC 3339)', () => {
  it.each([
    '2026-11-26T09:30:00Z',
    '2026-11-26t09:30:00z',
    '2026-11-26 09:30:00.123456789+05:30',
    '2024-02-29T00:00:00-11:59',
    '1900-01-01T00:00:00Z',
  ])('is %s', (text) => expect(isMoment(text)).toBe(true));

  it.each([
    ['a day that there is not', '2026-02-30T00:00:00Z'],
    ['a leap day without a leap year', '2026-02-29T00:00:00Z'],
    ['a month that there is not', '2026-13-01T00:00:00Z'],
    ['no month', '2026-00-10T00:00:00Z'],
    ['an hour past the day', '2026-11-26T24:00:00Z'],
    ['a leap second, which not every store can tell', '2026-06-30T23:59:60Z'],
    ['no offset', '2026-11-26T09:30:00'],
    ['an offset past a day', '2026-11-26T09:30:00+24:00'],
    ['only a day', '2026-11-26'],
    ['figures of another form', '٢٠٢٦-11-26T09:30:00Z'],
    ['a year that stores cannot tell', '0001-01-01T00:00:00Z'],
    ['the last day that an offset could push over', '9999-12-31T23:59:59Z'],
    ['more after it', '2026-11-26T09:30:00Z and then'],
  ])('is not %s', (_, text) => expect(isMoment(text)).toBe(false));

  it('is every moment that a clock writes, of the years that are told', () => {
    const from = Date.UTC(1900, 0, 1);
    const to = Date.UTC(9999, 11, 30);
    fc.assert(fc.property(fc.integer({ min: from, max: to }), (at) => isMoment(new Date(at).toISOString())));
  });
});
