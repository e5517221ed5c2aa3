import { RecordsApi } from '../records/api';
import { needWorkplace } from '../studio/builder';
import { lookOf, type Looking } from './look';

/** How the request looks, for a builder of the application. */
export async function lookOfRequest(slug: string, request: Request): Promise<Looking> {
  const { searchParams, pathname } = new URL(request.url);
  return lookOf(await needWorkplace(slug, 'read'), searchParams, pathname);
}

/**
 * The records API as the viewer whom the request names has it. What is written stays in the pane that it
 * names; without one, as on the canvas, it is decided and then forgotten.
 */
export async function recordsOfLook(slug: string, request: Request): Promise<RecordsApi> {
  const { scope, writer } = await lookOfRequest(slug, request);
  return new RecordsApi(scope, writer);
}
