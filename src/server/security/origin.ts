import { Refused } from '../http/problem';

/** Where the request says it was sent to: its scheme and host, as the browser sees them. */
export function ownOrigin(request: Request): string {
  const host = request.headers.get('x-forwarded-host') ?? request.headers.get('host') ?? '';
  const scheme = request.headers.get('x-forwarded-proto') ?? new URL(request.url).protocol.replace(':', '');
  return `${scheme}://${host}`;
}

/**
 * Refuses a state-changing request that another site may have made. A browser says where a request comes
 * from (Origin, or Sec-Fetch-Site of the Fetch Metadata headers); what says nothing is not a browser.
 */
export function requireSameOrigin(request: Request): void {
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const host = (url: string): string => url.replace(/^https?:\/\//, '');
  const foreign =
    (origin !== null && host(origin) !== host(ownOrigin(request))) ||
    (site !== null && site !== 'same-origin' && site !== 'none');
  if (foreign) throw new Refused(403, 'other-site', 'This request comes from another site.');
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
