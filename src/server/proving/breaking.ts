import { eq } from 'drizzle-orm';
import type { Definition } from '@/core/model';
import type { ListedExpectation } from '@/contract/studio/proving';
import type { Breaking } from '@/contract/studio/releasing';
import { database } from '../database/client';
import { applications } from '../database/schema';
import { draftOf } from '../drafts/draft';
import { peopleOf } from '../people/read';
import { listExpectations } from './expectations';
import { brokenNow } from './prove';

/** The expectations that a definition breaks, for the people there are now. */
export async function breaksOf(applicationId: string, definition: Definition): Promise<ListedExpectation[]> {
  const expected = await listExpectations(applicationId);
  if (expected.length === 0) return [];
  const broken = await brokenNow(applicationId, definition, await peopleOf(applicationId), expected);
  const ids = new Set(broken.map(({ id }) => id));
  return expected.filter(({ id }) => ids.has(id));
}

export async function breakingOf(applicationId: string): Promise<Breaking> {
  const { definition } = await draftOf(applicationId);
  const [{ mayBreak = false } = {}] = await database()
    .select({ mayBreak: applications.mayBreak })
    .from(applications)
    .where(eq(applications.id, applicationId));
  return { mayBreak, broken: await breaksOf(applicationId, definition) };
}
