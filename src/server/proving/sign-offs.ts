import { createHash } from 'node:crypto';
import { and, desc, eq, sql } from 'drizzle-orm';
import { canonicalJson } from '@/core/signing';
import type { ListedSignOff } from '@/contract/studio/proving';
import { database } from '../database/client';
import { auditEvents, builders, edits, releases, signOffs } from '../database/schema';
import { isUuid } from '../database/uuid';
import { draftAt } from '../drafts/draft';
import { notThere } from '../http/problem';
import { notifyChange } from '../notifications/notices';
import { peopleOf } from '../people/read';

type SignOff = typeof signOffs.$inferSelect;

export async function listSignOffs(applicationId: string): Promise<ListedSignOff[]> {
  const rows = await database()
    .select({
      id: signOffs.id,
      title: signOffs.title,
      revision: signOffs.revision,
      release: signOffs.release,
      wasOld: sql<boolean>`exists (select from ${edits} where ${edits.applicationId} = ${signOffs.applicationId}
        and ${edits.revision} > ${signOffs.revision} and ${edits.at} < ${signOffs.at})`,
      sha256: signOffs.sha256,
      by: builders.name,
      at: signOffs.at,
    })
    .from(signOffs)
    .innerJoin(builders, eq(builders.id, signOffs.author))
    .where(eq(signOffs.applicationId, applicationId))
    .orderBy(desc(signOffs.at));
  return rows.map(({ at, ...one }) => ({ ...one, at: at.toISOString() }));
}

/** Keeps the access of the draft as it is now, people's roles included, as confirmed by this builder. Returns its id. */
export async function signOff(
  applicationId: string,
  builderId: string,
  title: string,
  reviewed: number,
): Promise<string> {
  const { definition, revision } = await draftAt(applicationId, reviewed);
  const people = await peopleOf(applicationId);
  const [released] = await database()
    .select({ number: releases.number })
    .from(releases)
    .where(and(eq(releases.applicationId, applicationId), eq(releases.revision, revision)))
    .orderBy(desc(releases.number));
  const release = released?.number ?? null;
  const content = { title, revision, release, definition, people };
  return database().transaction(async (tx) => {
    const [row] = await tx
      .insert(signOffs)
      .values({ applicationId, ...content, sha256: hashOf(content), author: builderId })
      .returning({ id: signOffs.id });
    await tx
      .insert(auditEvents)
      .values({ applicationId, builderId, what: 'signed-off', detail: { revision, id: row?.id ?? '' } });
    await notifyChange(tx, applicationId, 'signed');
    return row?.id ?? '';
  });
}

type Content = Pick<SignOff, 'title' | 'revision' | 'release' | 'definition' | 'people'>;

/** SHA-256 of what was signed off as canonical JSON (RFC 8785), in hexadecimal. */
const hashOf = (content: Content): string => createHash('sha256').update(contentOf(content)).digest('hex');

/** What was signed off as its file has it: whoever has that can work out its SHA-256. */
export const contentOf = ({ title, revision, release, definition, people }: Content): string =>
  canonicalJson({ title, revision, release, definition, people });

export async function signOffById(
  applicationId: string,
  id: string,
): Promise<SignOff & { readonly by: string; readonly isWhole: boolean }> {
  const [row] = isUuid(id)
    ? await database()
        .select({ signOff: signOffs, by: builders.name })
        .from(signOffs)
        .innerJoin(builders, eq(builders.id, signOffs.author))
        .where(and(eq(signOffs.applicationId, applicationId), eq(signOffs.id, id)))
    : [];
  if (!row) throw notThere();
  return { ...row.signOff, by: row.by, isWhole: hashOf(row.signOff) === row.signOff.sha256 };
}
