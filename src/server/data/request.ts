import type { RecordKind } from '../database/schema';
import { Refused } from '../http/problem';
import { kindOf } from '../look/look';
import { needWorkplace, type Workplace } from '../studio/builder';

/** Which records of an entity a request is about, and for whom. */
export interface DataRequest {
  readonly workplace: Workplace;
  readonly kind: RecordKind;
  readonly entity: string;
}

/**
 * Which records a request is about: `?records=live` takes the right that the owner gives, to read or to change, and is in
 * the audit trail.
 */
export async function dataRequest(
  request: Request,
  app: string,
  entity: string,
  to: 'read' | 'change',
): Promise<DataRequest> {
  const { searchParams, pathname } = new URL(request.url);
  const live = searchParams.get('records') === 'live';
  // Live records have a right of their own: a reviewer may have it, and an editor not.
  const workplace = await needWorkplace(app, live ? 'read' : to);
  const kind = await kindOf(workplace, searchParams, pathname);
  if (kind === 'live' && to === 'change' && workplace.live !== 'change')
    throw new Refused(403, 'live-records', 'You can read live records here but cannot change them.');
  return { workplace, kind, entity };
}
