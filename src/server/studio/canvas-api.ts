import type { RecordsApi } from '../records/api';
import { needWorkplace } from './builder';
import { canvasRecords } from './canvas';

/** The records API of the canvas, for the viewer that the request names. */
export async function recordsOfCanvas(slug: string, request: Request): Promise<RecordsApi> {
  const { applicationId } = await needWorkplace(slug, 'read');
  return canvasRecords(applicationId, new URL(request.url).searchParams.get('viewer') ?? '');
}
