import { currencyIn, guessSheets, kindsSchema, lookAt, namesOf, titled } from '@/core/making';
import { handle, json } from '@/server/http/handle';
import { Refused } from '@/server/http/problem';
import { readForm, saidIn, sheetsIn, today } from '@/server/making/sent-sheets';
import { needBuilder } from '@/server/studio/builder';

/**
 * `POST …/making/look`: what the columns of CSV files hold, by all their rows; with `kinds`, how they would be as
 * those. Nothing is stored.
 */
export const POST = handle(async (request) => {
  await needBuilder();
  const form = await readForm(request);
  const sheets = await sheetsIn(form, request.signal);
  const kinds = saidIn(form, 'kinds', kindsSchema);
  if (kinds && !sheets.every(({ columns }, s) => kinds[s]?.length === columns.length))
    throw new Refused(422, 'kinds', 'The files are others than those that were looked at. Choose them anew.');
  const columns = kinds
    ? sheets.map((sheet, s) =>
        sheet.columns.map((name, c) => {
          const as = kinds[s]?.[c] ?? { kind: 'left' };
          if (as.kind === 'points' && !sheets[as.sheet]?.columns[as.column])
            throw new Refused(422, 'kinds', `${name} points to a column that is not there.`);
          return lookAt(sheets, s, c, name, as, today());
        }),
      )
    : guessSheets(sheets, today());
  return json({
    currency: currencyIn(columns),
    sheets: sheets.map(({ name, rows, columns: names }, s) => ({
      ...namesOf(name),
      rows: rows.length,
      columns: (columns[s] ?? []).map((one, c) => ({ ...one, title: titled(names[c] ?? '') || one.name })),
    })),
  });
});
