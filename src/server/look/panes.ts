import { and, eq, lt, sql } from 'drizzle-orm';
import { withArticle } from '@/core/model';
import { compile } from '@/core';
import { conversionsOf } from '@/core/converting';
import type { Definition } from '@/core/model';
import { database } from '../database/client';
import { auditEvents, paneRecords, panes, records } from '../database/schema';
import { draftOf } from '../drafts/draft';
import { releasedDefinition, releaseInForce } from '../releases';
import { notThere, Refused } from '../http/problem';
import { beginWriting, insertRecord, isRecord, putRecord, type Place } from '../records/store';
import { isPointedTo } from '../records/write';
import type { Workplace } from '../studio/builder';

/** Panes that nobody asked anything of for so long are thrown away. */
const KEPT_HOURS = 24;

/** How many records are other ones in this pane than those stored. */
export const changesIn = async (pane: string | undefined): Promise<number> =>
  pane === undefined ? 0 : database().$count(paneRecords, eq(paneRecords.paneId, pane));

/**
 * Live records hold what the release says: a draft whose fields hold something else must not write them. Returns the
 * release by which that is so.
 */
async function sameTypes(applicationId: string, draft: Definition): Promise<number | undefined> {
  const inForce = await releaseInForce(applicationId);
  const released = inForce && (await releasedDefinition(applicationId, inForce.number));
  if (released && conversionsOf(released, draft).length > 0)
    throw new Refused(
      409,
      'other-types',
      'Some fields have a different type in the draft than in the release. Release the draft before you change live records.',
    );
  return inForce?.number;
}

/** Throws away what was changed in a pane, and what others left behind long ago. */
export async function throwAway({ builder }: Workplace, id: string): Promise<void> {
  await database()
    .delete(panes)
    .where(and(eq(panes.id, id), eq(panes.builderId, builder.id)));
  await database()
    .delete(panes)
    .where(lt(panes.usedAt, sql`now() - make_interval(hours => ${KEPT_HOURS})`));
}

/**
 * Stores what was changed in a pane, all of it or nothing; the pane goes on without changes. Refused where a
 * stored record is another one by now. Each change was decided when it was made, as that pane's viewer.
 * Returns how many records were stored.
 */
export async function keepChanges(workplace: Workplace, id: string): Promise<number> {
  const { applicationId, builder } = workplace;
  const { definition } = await draftOf(applicationId);
  const { tree } = compile(definition);
  return database().transaction(async (tx) => {
    const [pane] = await tx
      .select()
      .from(panes)
      .where(and(eq(panes.id, id), eq(panes.builderId, builder.id), eq(panes.applicationId, applicationId)))
      .for('update');
    if (!pane) throw notThere();
    if (pane.kind === 'live' && workplace.live !== 'change')
      throw new Refused(403, 'live-records', 'You can read live records here but cannot change them.');
    const release = pane.kind === 'live' ? await sameTypes(applicationId, definition) : undefined;
    const place: Place = { applicationId, kind: pane.kind, release };
    await beginWriting(place, tx);
    const changed = await tx.select().from(paneRecords).where(eq(paneRecords.paneId, id));
    // What is gone goes last: what pointed to it may be gone or changed too.
    for (const one of changed.sort((a, b) => Number(a.data === null) - Number(b.data === null))) {
      const element = tree.get(one.entity);
      if (element?.kind !== 'rows') throw changedSince('the entity has been deleted from the draft');
      const entity = element.node;
      const [stored] = await tx
        .select({ version: records.version })
        .from(records)
        .where(isRecord(place, one.entity, one.id))
        .for('update');
      if ((stored?.version ?? null) !== one.over)
        throw changedSince(`${withArticle(entity.name.toLowerCase())} was changed by someone else`);
      if (one.data && stored) await putRecord(place, entity, one.id, stored.version, one.data, tx);
      else if (one.data) await insertRecord(place, entity, { id: one.id, version: 1, values: one.data }, tx);
      else if (stored) {
        if (await isPointedTo(place, definition, entity, one.id, tx))
          throw changedSince(
            `${withArticle(entity.name.toLowerCase())} that is deleted in this pane is in use`,
          );
        await putRecord(place, entity, one.id, stored.version, null, tx);
      }
    }
    await tx.delete(paneRecords).where(eq(paneRecords.paneId, id));
    await tx.insert(auditEvents).values({
      applicationId,
      builderId: builder.id,
      what: 'pane-kept',
      detail: { records: changed.length, kind: pane.kind },
    });
    return changed.length;
  });
}

const changedSince = (why: string): Refused =>
  new Refused(
    409,
    'changed-meanwhile',
    `Nothing was saved, because ${why} in the meantime. Discard the changes in this pane and make them again.`,
  );
