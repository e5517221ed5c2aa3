import { eq, lt, sql } from 'drizzle-orm';
import { type Edit, EDIT_FORMAT } from '@/core/edit';
import { type Definition, FORMAT, upgradeDefinition, upgradeEdit } from '@/core/model';
import type { Executor } from './database/client';
import { edits, releases, snapshots } from './database/schema';

/** Brings stored definitions and edits of an older format to the present one. Run before the server starts. */
export async function upgradeStored(on: Executor): Promise<void> {
  for (const table of [snapshots, releases]) {
    const old = await on
      .select({ id: sql<string>`ctid::text`, definition: table.definition })
      .from(table)
      .where(sql`(${table.definition} ->> 'format')::int < ${FORMAT}`);
    for (const { id, definition } of old)
      await on
        .update(table)
        .set({ definition: upgradeDefinition(definition) as Definition })
        .where(sql`ctid = ${id}::tid`);
  }
  for (const row of await on.select().from(edits).where(lt(edits.format, EDIT_FORMAT)))
    await on
      .update(edits)
      .set({
        edit: upgradeEdit(row.edit, row.format) as Edit,
        inverse: upgradeEdit(row.inverse, row.format) as Edit,
        format: EDIT_FORMAT,
      })
      .where(sql`${eq(edits.applicationId, row.applicationId)} and ${eq(edits.revision, row.revision)}`);
}
