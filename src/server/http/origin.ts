import { originOfHost } from '../hosts.mjs';
import { Refused } from './problem';

/** The origin that the request was sent to, of those that are configured. Refuses any other. */
function ownOrigin(request: Request): string {
  const origin = originOfHost(request.headers.get('host'));
  if (origin === undefined) throw new Refused(421, 'other-host', 'The server does not serve this host name.');
  return origin;
}

/**
 * Refuses a state-changing request that another site may have made. A browser says where a request comes
 * from (Origin, or Sec-Fetch-Site of the Fetch Metadata headers); what says nothing is not a browser.
 */
export function requireSameOrigin(request: Request): void {
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const own = ownOrigin(request);
  if ((origin !== null && origin !== own) || (site !== null && site !== 'same-origin' && site !== 'none'))
    throw new Refused(403, 'other-site', 'The request was refused because it comes from another site.');
}

/** An address to go back to, if it is our own and under `prefix`; else undefined. */
export function ownAddress(back: string | undefined, prefix: string): string | undefined {
  if (!back?.startsWith('/') || /[\\\u0000-\u001f]/.test(back)) return undefined;
  const base = 'http://own.invalid';
  if (!URL.canParse(back, base)) return undefined;
  const { origin, pathname, search } = new URL(back, base);
  if (origin !== base || !(pathname === prefix || pathname.startsWith(`${prefix}/`))) return undefined;
  return pathname + search;
}
