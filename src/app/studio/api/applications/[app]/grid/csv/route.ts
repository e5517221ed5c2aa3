import { fullName } from '@/core/edit';
import { toCsv } from '@/server/csv';
import { handle } from '@/server/http/handle';
import { needWorkplace } from '@/server/studio/builder';
import { gridSheet } from '@/server/studio/grid';

/** The grid as CSV (RFC 4180): an element a row, a viewer a column, each level in words. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (_, { params }) => {
  const { app } = await params;
  const { columns, rows } = await gridSheet(await needWorkplace(app, 'read'));
  const lines = [
    ['Element', 'Kind', 'Lines', ...columns],
    ...rows.map(({ element, kind, cells }) => [
      fullName(element),
      kind,
      cells[0]?.own ? 'own' : 'follows',
      ...cells.map(({ word, limited }) => (limited ? `${word} (limited)` : word)),
    ]),
  ];
  return new Response(`\uFEFF${toCsv(lines)}`, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8; header=present',
      'Content-Disposition': `attachment; filename="${app}-access.csv"`,
    },
  });
});
