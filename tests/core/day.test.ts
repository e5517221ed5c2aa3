import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayInWords, isDate, readDay } from '@/core/model/day';

const TODAY = '2026-11-26';
const LANGUAGES = [
  'en-GB',
  'en-US',
  'de-DE',
  'fr-FR',
  'es-ES',
  'pt-BR',
  'pl-PL',
  'cs-CZ',
  'fi-FI',
  'nl-NL',
  'sv-SE',
  'hu-HU',
  'lt-LT',
  'ru-RU',
  'el-GR',
  'tr-TR',
  'ja-JP',
  'zh-CN',
  'ko-KR',
  'ar-EG',
  'he-IL',
  'hi-IN',
  'th-TH',
  'fa-IR',
];
const days = fc
  .date({ min: new Date('1000-01-01'), max: new Date('9999-12-31'), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));

describe('a date', () => {
  it.each<[string, string, string | undefined]>([
    ['en-GB', '3/4/2026', '2026-04-03'],
    ['en-US', '3/4/2026', '2026-03-04'],
    ['de-DE', '3.4.26', '2026-04-03'],
    ['hu-HU', '26. 4. 3.', '2026-04-03'],
    ['en-GB', ' 2026-04-03 ', '2026-04-03'],
    ['en-GB', '2026/4/3', '2026-04-03'],
    ['en-GB', '3 April 2026', '2026-04-03'],
    ['en-GB', 'april 3rd, 2026', '2026-04-03'],
    ['en-GB', '3 apr', '2026-04-03'],
    ['en-GB', 'Fri 3 Apr 1961', '1961-04-03'],
    ['de-DE', '3. März 47', '1947-03-03'],
    ['de-DE', '3. März 46', '2046-03-03'],
    ['fr-FR', '3 août 2026', '2026-08-03'],
    ['pl-PL', '3 marca 2026', '2026-03-03'],
    ['en-GB', '31/2/2026', undefined],
    ['en-GB', '3/4', undefined],
    ['en-GB', '2026-13-01', undefined],
    ['en-GB', 'April', undefined],
    ['en-GB', 'soon', undefined],
    ['en-GB', '', undefined],
  ])('in %s, “%s” is %s', (language, text, day) => {
    expect(readDay(language, text, TODAY)).toBe(day);
  });

  it.each(LANGUAGES)('is read as it is shown, in %s', (language) => {
    fc.assert(
      fc.property(days, (day) => {
        expect(readDay(language, dayInWords(language, day), TODAY)).toBe(day);
      }),
      { numRuns: 60 },
    );
  });

  it('is read from anything without falling over, and is then a day', () => {
    fc.assert(
      fc.property(fc.constantFrom(...LANGUAGES), fc.string({ unit: 'grapheme' }), (language, text) => {
        const read = readDay(language, text, TODAY);
        expect(read === undefined || isDate(read)).toBe(true);
      }),
    );
  });
});
