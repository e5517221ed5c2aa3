import { and, eq, inArray } from 'drizzle-orm';
import { CHECKS, type Rank } from '@/core/findings';
import type { ProofState, ProofCounts, ReleaseCounts, Since } from '@/contract/studio/proving';
import { database } from '../database/client';
import {
  applications,
  builders,
  type BrokenExpectation,
  edits,
  expectations,
  proofs,
  releases,
  setAside,
} from '../database/schema';
import { Refused } from '../http/problem';
import { notifyChange } from '../notifications/notices';
import { newestProof } from './newest';

/** The edit with which something came, by who made it too. */
type SinceBy = Since & { readonly authorId: string };

const LATELY = 5;

const TITLES = new Map(CHECKS.map(({ kind, title }) => [kind, title]));

/** What was found out about the newest revision; undefined where none was looked through yet. */
export async function proofOf(applicationId: string): Promise<ProofState | undefined> {
  const row = await newestProof(applicationId);
  if (!row) return undefined;
  const aside = await asideIn(applicationId);
  const since = await editsAt(
    applicationId,
    [...row.findings, ...row.broken].map((one) => one.since),
  );
  return {
    revision: row.revision,
    findings: row.findings.map(({ basis, since: revision, ...found }) => {
      const kept = aside.get(found.key);
      return {
        ...found,
        title: TITLES.get(found.kind) ?? found.kind,
        since: since.get(revision),
        ...(kept?.basis === basis && { aside: { reason: kept.reason, by: kept.by, at: kept.at } }),
      };
    }),
    broken: row.broken.map((one) => ({ ...one, since: since.get(one.since) })),
    expected: row.expected,
  };
}

/** How much there is to look at: without what was set aside. */
export async function countsOf(applicationId: string, builderId: string): Promise<ProofCounts | undefined> {
  const row = await newestProof(applicationId);
  if (!row) return undefined;
  const aside = await asideIn(applicationId);
  const open = row.findings.filter(({ key, basis }) => aside.get(key)?.basis !== basis);
  const is = (rank: Rank): number => open.filter((one) => one.rank === rank).length;
  return {
    revision: row.revision,
    lookAt: open.length,
    letsIn: is('lets-in'),
    broken: row.broken.length,
    lately: await brokenLately(applicationId, builderId, row.broken),
  };
}

async function brokenLately(
  applicationId: string,
  builderId: string,
  broken: readonly BrokenExpectation[],
): Promise<ProofCounts['lately']> {
  const last = [...broken].sort((one, other) => other.since - one.since).slice(0, LATELY);
  if (last.length === 0) return [];
  const rows = await database()
    .select({ id: expectations.id, expectation: expectations.expectation })
    .from(expectations)
    .where(
      inArray(
        expectations.id,
        last.map(({ id }) => id),
      ),
    );
  const since = await editsAt(
    applicationId,
    last.map((one) => one.since),
  );
  return last.flatMap(({ id, since: revision }) => {
    const found = rows.find((one) => one.id === id);
    if (!found) return [];
    return [{ name: found.expectation.name, revision, mine: since.get(revision)?.authorId === builderId }];
  });
}

/** With how much each release went out, as far as it was looked through, in their order. */
export async function overReleases(applicationId: string): Promise<ReleaseCounts[]> {
  const rows = await database()
    .select({ release: releases.number, findings: proofs.findings, broken: proofs.broken })
    .from(releases)
    .innerJoin(
      proofs,
      and(eq(proofs.applicationId, releases.applicationId), eq(proofs.revision, releases.revision)),
    )
    .where(eq(releases.applicationId, applicationId))
    .orderBy(releases.number);
  return rows.map(({ release, findings, broken }) => ({
    release,
    findings: findings.length,
    letIn: findings.filter(({ rank }) => rank === 'lets-in').length,
    broken: broken.length,
  }));
}

/** Sets a finding of the newest revision aside until what it rests on changes; without a reason, no longer. */
export async function setFindingAside(
  applicationId: string,
  builderId: string,
  key: string,
  reason: string | null,
): Promise<void> {
  if (reason === null) {
    await database()
      .delete(setAside)
      .where(and(eq(setAside.applicationId, applicationId), eq(setAside.key, key)));
  } else {
    const found = (await newestProof(applicationId))?.findings.find((one) => one.key === key);
    if (!found) throw new Refused(409, 'gone', 'This finding no longer exists. Reload the page.');
    const values = { basis: found.basis, reason, author: builderId, at: new Date() };
    await database()
      .insert(setAside)
      .values({ applicationId, key, ...values })
      .onConflictDoUpdate({ target: [setAside.applicationId, setAside.key], set: values });
  }
  const [{ head = 0 } = {}] = await database()
    .select({ head: applications.headRevision })
    .from(applications)
    .where(eq(applications.id, applicationId));
  await notifyChange(database(), applicationId, `proved ${head}`);
}

async function asideIn(applicationId: string) {
  const rows = await database()
    .select({
      key: setAside.key,
      basis: setAside.basis,
      reason: setAside.reason,
      by: builders.name,
      at: setAside.at,
    })
    .from(setAside)
    .innerJoin(builders, eq(builders.id, setAside.author))
    .where(eq(setAside.applicationId, applicationId));
  return new Map(rows.map(({ key, at, ...one }) => [key, { ...one, at: at.toISOString() }] as const));
}

async function editsAt(applicationId: string, revisions: readonly number[]): Promise<Map<number, SinceBy>> {
  const wanted = [...new Set(revisions)];
  if (wanted.length === 0) return new Map();
  const rows = await database()
    .select({ revision: edits.revision, author: builders.name, authorId: builders.id, at: edits.at })
    .from(edits)
    .innerJoin(builders, eq(builders.id, edits.author))
    .where(and(eq(edits.applicationId, applicationId), inArray(edits.revision, wanted)));
  return new Map(rows.map(({ at, ...one }) => [one.revision, { ...one, at: at.toISOString() }] as const));
}
