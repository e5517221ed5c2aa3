/** Years that every store and every zone can tell of. */
const [FIRST, LAST] = [Date.UTC(1900, 0, 1), Date.UTC(9999, 11, 30)];

const FORM = /^(\d{4})-(\d{2})-(\d{2})[Tt ](\d{2}):(\d{2}):(\d{2})(\.\d{1,9})?([Zz]|[+-](\d{2}):(\d{2}))$/;

/**
 * Is it a moment in RFC 3339's form, with its offset, on a day that there is, in the years 1900 to 9999? A day such
 * as 30 February is none, though `Date.parse` takes it for another.
 */
export function isMoment(text: string): boolean {
  const found = FORM.exec(text);
  if (!found) return false;
  const [year, month, day, hour, minute, second] = found.slice(1, 7).map(Number) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const days = new Date(Date.UTC(year, month, 0)).getUTCDate();
  if (month < 1 || month > 12 || day < 1 || day > days) return false;
  if (hour > 23 || minute > 59 || second > 59) return false;
  if (Number(found[9] ?? 0) > 23 || Number(found[10] ?? 0) > 59) return false;
  const at = Date.parse(text.replace(' ', 'T'));
  return at >= FIRST && at <= LAST;
}
