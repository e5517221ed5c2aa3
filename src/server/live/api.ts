import { cookies } from 'next/headers';
import { notThere } from '../http/problem';
import { auditStandIn } from './acting-as';
import { visit } from './visit';
import type { Visit } from './who-visits';

/** The visit of a request to the API of a released application; in a stand-in, kept in the audit trail. */
export async function apiVisit(slug: string, request: Request): Promise<Visit> {
  const now = await visit(slug, await cookies());
  if (!now) throw notThere();
  const { pathname } = new URL(request.url);
  await auditStandIn(now, request.method === 'GET' ? 'looked' : 'did', `${request.method} ${pathname}`);
  return now;
}
