import { and, desc, eq } from 'drizzle-orm';
import type { Definition } from '@/core/model';
import { database } from './database/client';
import { applications, builders, releases } from './database/schema';

/** Releases never change, so what was read of one stays. The newest few of each application are kept. */
const known = new Map<string, Definition>();
const MOST_KNOWN = 50;

/** The definition of a release. */
export async function releasedDefinition(applicationId: string, number: number): Promise<Definition> {
  const key = `${applicationId} ${number}`;
  const found = known.get(key);
  if (found) return found;
  const [row] = await database()
    .select({ definition: releases.definition })
    .from(releases)
    .where(and(eq(releases.applicationId, applicationId), eq(releases.number, number)));
  if (!row) throw new Error(`${applicationId} has no release ${number}`);
  known.set(key, row.definition);
  const [oldest] = known.keys();
  if (known.size > MOST_KNOWN && oldest) known.delete(oldest);
  return row.definition;
}

export interface Release {
  readonly number: number;
  readonly revision: number;
  readonly at: Date;
  /** Null: it came with the application. */
  readonly author: string | null;
  readonly note: string;
}

/** The release in force, or undefined before the first. */
export async function releaseInForce(applicationId: string): Promise<Release | undefined> {
  const [row] = await database()
    .select({
      number: releases.number,
      revision: releases.revision,
      at: releases.at,
      author: builders.name,
      note: releases.note,
    })
    .from(releases)
    .innerJoin(
      applications,
      and(eq(applications.id, releases.applicationId), eq(applications.release, releases.number)),
    )
    .leftJoin(builders, eq(builders.id, releases.author))
    .where(eq(releases.applicationId, applicationId));
  return row;
}

/** The numbers of all releases, newest first. */
export async function releaseNumbers(applicationId: string): Promise<number[]> {
  const rows = await database()
    .select({ number: releases.number })
    .from(releases)
    .where(eq(releases.applicationId, applicationId))
    .orderBy(desc(releases.number));
  return rows.map(({ number }) => number);
}
