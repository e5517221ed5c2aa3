import { cookies } from 'next/headers';
import { notThere } from '../http/problem';
import { RecordsApi } from '../records/api';
import { scopeOf, visit } from './visit';

/** The records API of a released application, for whoever asks. */
export async function liveRecords(slug: string): Promise<RecordsApi> {
  const now = await visit(slug, await cookies());
  if (!now) throw notThere();
  return new RecordsApi(scopeOf(now), { keep: true, ...(now.person && { personId: now.person.id }) });
}
