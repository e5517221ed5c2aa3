import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq, sql } from 'drizzle-orm';
import { applicationFrom, guessSheets, namesOf, type SheetChoice } from '@/core/making';
import { type DataAt, dataOf } from '@/server/data/at';
import { importSheet } from '@/server/data/import';
import { toCsv } from '@/server/csv';
import { patientDatabase } from '@/server/database/client';
import { applications, builders, records } from '@/server/database/schema';
import { firstRecords, makeApplication } from '@/server/making/make';
import { readSheet } from '@/server/making/read-sheet';
import { type Measure, middle } from './measure';

const MANY = 100_000;
const EACH = 3000;
const ROUNDS = 3;
const TODAY = '2026-11-26';

const plots = (count: number): string =>
  toCsv([
    ['Plot', 'Size', 'Rent', 'Since', 'Water', 'Kind'],
    ...Array.from({ length: count }, (_, n) => [
      `Plot ${n}`,
      String((n % 300) + 20),
      `£${(n % 90) + 10}.50`,
      `${(n % 28) + 1}/${(n % 12) + 1}/20${10 + (n % 15)}`,
      n % 3 ? 'yes' : 'no',
      ['field', 'orchard', 'garden'][n % 3] ?? '',
    ]),
  ]);
const visits = (count: number): string =>
  toCsv([
    ['Visit', 'Plot', 'On', 'Found'],
    ...Array.from({ length: count }, (_, n) => [
      `V${n}`,
      `Plot ${(n * 7) % count}`,
      `${(n % 28) + 1}/${(n % 12) + 1}/2025`,
      ['in order', 'untidy', 'empty'][n % 3] ?? '',
    ]),
  ]);
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/** Records from CSV, against what PostgreSQL itself does with them; and the first canvas of a new application. */
export async function measureData(address: string, cookie: string): Promise<Measure[]> {
  return [await importing(), await making(address, cookie)];
}

/** 100,000 rows as sample records, read, checked and stored, against COPY of the same records into a table like theirs. */
async function importing(): Promise<Measure> {
  const on = patientDatabase();
  const text = plots(MANY);
  const place = await madeFrom('benchdata', [plots(20)], []);
  const folder = mkdtempSync(join(tmpdir(), 'bench-'));
  // The database's server may run as somebody else.
  chmodSync(folder, 0o755);
  const [ours, copied]: [number[], number[]] = [[], []];
  try {
    await on.execute(sql`create table copied (like records including all)`);
    for (let n = 0; n < ROUNDS; n++) {
      await on.delete(records).where(eq(records.applicationId, place.applicationId));
      let start = performance.now();
      await importSheet(place, await readSheet('plots.csv', bytes(text)), { dry: false, leaveOut: false });
      ours.push(performance.now() - start);
      const file = join(folder, 'records');
      if (n === 0) {
        const rows = await on.select().from(records).where(eq(records.applicationId, place.applicationId));
        writeFileSync(
          file,
          toCsv(
            rows.map((row) => [row.applicationId, row.kind, row.entity, row.id, JSON.stringify(row.data)]),
          ),
          { mode: 0o644 },
        );
      }
      await on.execute(sql`truncate copied`);
      start = performance.now();
      const columns = sql.raw(`copied (application_id, kind, entity, id, data) from '${file}' (format csv)`);
      await on.execute(sql`copy ${columns}`);
      copied.push(performance.now() - start);
    }
  } finally {
    rmSync(folder, { recursive: true });
    await on.execute(sql`drop table if exists copied`);
  }
  const [a, b] = [middle(ours), middle(copied)];
  return {
    name: '100,000 rows of CSV as records, against COPY of the same into a table like theirs',
    ours: a,
    against: b,
    unit: 'ms',
    ratio: a / b,
    most: 3,
  };
}

/** From "make it" to the first canvas, of two files of 3,000 rows, against a bare insert of the same records. */
async function making(address: string, cookie: string): Promise<Measure> {
  const on = patientDatabase();
  const [ours, bare]: [number[], number[]] = [[], []];
  for (let n = 0; n < ROUNDS + 1; n++) {
    const slug = `benchmade${n}`;
    let start = performance.now();
    const { applicationId } = await madeFrom(slug, [plots(EACH), visits(EACH)], ['plots.csv', 'visits.csv']);
    const page = await fetch(`${address}/studio/${slug}/gates?address=plots`, { headers: { cookie } });
    const canvas = await fetch(
      `${address}/studio/api/applications/${slug}/look?viewer=signed-in&address=plots`,
      { headers: { cookie } },
    );
    await Promise.all([page.text(), canvas.text()]);
    if (!page.ok || !canvas.ok)
      throw new Error(`The new application is not drawn: ${page.status}, ${canvas.status}`);
    if (n > 0) ours.push(performance.now() - start);
    const rows = await on.select().from(records).where(eq(records.applicationId, applicationId));
    start = performance.now();
    for (let m = 0; m < rows.length; m += EACH / 2)
      await on
        .insert(records)
        .values(rows.slice(m, m + EACH / 2).map((row) => ({ ...row, kind: 'live' as const })));
    if (n > 0) bare.push(performance.now() - start);
    await on.delete(applications).where(eq(applications.id, applicationId));
  }
  const [a, b] = [middle(ours), middle(bare)];
  return {
    name: 'from "make it" to the first canvas, two files of 3,000 rows, against a bare insert of the same',
    ours: a,
    against: b,
    unit: 'ms',
    ratio: a / b,
    most: 3,
  };
}

/** An application of CSV files, as they are guessed; its first entity as a place for records. */
async function madeFrom(slug: string, texts: readonly string[], names: readonly string[]): Promise<DataAt> {
  const sheets = await Promise.all(texts.map((text, n) => readSheet(names[n] ?? 'plots.csv', bytes(text))));
  const choices = guessSheets(sheets, TODAY).map((columns, n): SheetChoice => ({
    ...namesOf(sheets[n]?.name ?? ''),
    columns: columns.map(({ name, as, needed }) => ({ name, as, needed })),
  }));
  const manners = { name: slug, language: 'en-GB', currency: 'GBP', timeZone: 'UTC' };
  const made = applicationFrom(manners, sheets, choices);
  const [builder] = await patientDatabase()
    .select()
    .from(builders)
    .where(eq(builders.email, 'tamsin@larkfield.example'));
  if (!builder) throw new Error('The demo has a builder');
  const first = firstRecords(made, sheets, choices, TODAY);
  await makeApplication(builder.id, { slug, definition: made.definition, records: first, from: 'csv' });
  const workplace = {
    builder: { id: builder.id, name: builder.name, token: '' },
    applicationId: made.definition.id,
    slug,
    name: slug,
    role: 'owner' as const,
    pins: [],
    live: 'change' as const,
    people: true,
    releases: true,
  };
  return dataOf({ workplace, kind: 'sample', entity: made.definition.entities[0]?.id ?? '' });
}
