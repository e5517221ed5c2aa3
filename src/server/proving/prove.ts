import { createHash } from 'node:crypto';
import { and, eq, lt, notInArray, sql } from 'drizzle-orm';
import { everybody, idInKey, type Person } from '@/core/access';
import { brokenOf, type Expectation } from '@/core/expectations';
import { basisOf, type Finding, findingsIn, keyOfFinding } from '@/core/findings';
import type { Definition } from '@/core/model';
import { database } from '../database/client';
import {
  applications,
  type BrokenExpectation,
  expectations,
  type KeptFinding,
  proofs,
  releases,
} from '../database/schema';
import { draftAt, draftOf } from '../drafts/draft';
import { notifyChange } from '../notifications/notices';
import { peopleCounted, peopleOf } from '../people/read';
import { askedBy } from './asked';
import { newestProof } from './newest';

/**
 * So many revisions are looked at one by one, to tell which of them brought a finding; of more, and where one takes long,
 * only the newest.
 */
const ONE_BY_ONE = 20;
const LONG_MS = 1000;
/** So many revisions are kept, and those that were released. */
const KEPT = 50;
const SOME = 5;

type StoredProof = Pick<typeof proofs.$inferSelect, 'revision' | 'findings' | 'broken'>;

/**
 * Works out what is probably wrong with the newest revision of a draft, and which expectations it breaks, and keeps it;
 * before that, of the revisions in between. Returns whether there was anything new to tell.
 */
export async function prove(applicationId: string): Promise<boolean> {
  const [application] = await database()
    .select({ head: applications.headRevision, sweepOf: applications.sweepOf })
    .from(applications)
    .where(eq(applications.id, applicationId));
  // Deleted since, or the copy that a sweep asks.
  if (!application || application.sweepOf !== null) return false;
  const { head } = application;
  let last: StoredProof | undefined = await newestProof(applicationId);
  const [people, counted] = await Promise.all([peopleOf(applicationId), peopleCounted(applicationId)]);
  const expected = await expectationsOf(applicationId);
  const from = last && last.revision < head ? Math.max(last.revision + 1, head - ONE_BY_ONE) : head;
  for (let revision = from; revision <= head; revision++) {
    const begun = performance.now();
    const { definition } = await draftAt(applicationId, revision);
    const broken = await brokenNow(applicationId, definition, people, expected);
    const proof: StoredProof = {
      revision,
      findings: keptFindings(definition, counted, revision, last),
      broken: broken.map((one): BrokenExpectation => ({
        ...one,
        since: last?.broken.find(({ id }) => id === one.id)?.since ?? revision,
      })),
    };
    await keep(applicationId, proof, expected.length);
    last = proof;
    if (performance.now() - begun > LONG_MS) revision = Math.max(revision, head - 1);
  }
  await forgetOld(applicationId, head);
  // The next revision is worked out from this one: what an edit leaves as it is, is the very same then.
  await draftOf(applicationId);
  await notifyChange(database(), applicationId, `proved ${head}`);
  return true;
}

/** The expectations of an application, in the order in which they were made. */
async function expectationsOf(applicationId: string): Promise<(Expectation & { readonly id: string })[]> {
  const rows = await database()
    .select({ id: expectations.id, expectation: expectations.expectation })
    .from(expectations)
    .where(eq(expectations.applicationId, applicationId))
    .orderBy(expectations.at, expectations.id);
  return rows.map(({ id, expectation }) => ({ id, ...expectation }));
}

/** The expectations that do not hold in a definition, for the people there are now. */
export async function brokenNow(
  applicationId: string,
  definition: Definition,
  people: readonly Person[],
  expected: readonly (Expectation & { readonly id: string })[],
) {
  return brokenOf(definition, expected, await askedBy(applicationId, definition, people, expected));
}

function keptFindings(
  definition: Definition,
  people: readonly Person[],
  revision: number,
  last: StoredProof | undefined,
): KeptFinding[] {
  const known = new Map(last?.findings.map((one) => [one.key, one.since] as const));
  const persons = everybody(people).filter(({ key }) => idInKey('person', key) !== undefined);
  return findingsIn(definition, persons, Date.now()).map((found) => {
    const key = keyOfFinding(found);
    return {
      ...found,
      key,
      basis: basisHash(definition, found),
      since: known.get(key) ?? revision,
      whom: shortened(found.whom),
    };
  });
}

/** SHA-256 of what a finding rests on, in hexadecimal. */
const basisHash = (definition: Definition, found: Finding): string =>
  createHash('sha256').update(basisOf(definition, found)).digest('hex');

/** Kinds of viewers by their keys; of people how many, and the names of some. */
function shortened(whom: Finding['whom']): KeptFinding['whom'] {
  const [persons, kinds] = [true, false].map((are) =>
    whom.filter(({ key }) => (idInKey('person', key) !== undefined) === are),
  );
  const some = persons?.slice(0, SOME).flatMap(({ alike }) => alike) ?? [];
  return {
    kinds: kinds?.map(({ key }) => key) ?? [],
    people: persons?.reduce((sum, { alike }) => sum + alike.length, 0) ?? 0,
    some: some.slice(0, SOME).map(({ key, name }) => ({ key, name })),
  };
}

async function keep(applicationId: string, proof: StoredProof, expected: number): Promise<void> {
  const values = { ...proof, expected, at: new Date() };
  await database()
    .insert(proofs)
    .values({ applicationId, ...values })
    .onConflictDoUpdate({ target: [proofs.applicationId, proofs.revision], set: values });
}

async function forgetOld(applicationId: string, head: number): Promise<void> {
  const released = database()
    .select({ revision: releases.revision })
    .from(releases)
    .where(eq(releases.applicationId, applicationId));
  await database()
    .delete(proofs)
    .where(
      and(
        eq(proofs.applicationId, applicationId),
        lt(proofs.revision, head - KEPT),
        notInArray(proofs.revision, released),
      ),
    );
}

/** The applications of whose newest revision nothing was found out for a day: with the days some things are over by themselves. */
export async function toBeProved(since: Date = new Date(Date.now() - 24 * 3_600_000)): Promise<string[]> {
  const rows = await database()
    .select({ id: applications.id })
    .from(applications)
    .where(
      sql`${applications.sweepOf} is null and not exists (select from ${proofs} where ${proofs.applicationId} = ${applications.id}
        and ${proofs.revision} = ${applications.headRevision} and ${proofs.at} > ${since.toISOString()}::timestamptz)`,
    );
  return rows.map(({ id }) => id);
}
