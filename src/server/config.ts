/** Where this installation is reached, as it was configured: never as a request says. */
interface Origins {
  /** `PUBLIC_URL`: where browsers reach the studio, and the released applications too without `LIVE_ORIGIN`. */
  readonly studio: URL | undefined;
  /** `LIVE_ORIGIN`: an origin of their own for the released applications. */
  readonly live: URL | undefined;
}

function read(name: string): URL | undefined {
  const text = process.env[name];
  if (!text) return undefined;
  const url = URL.canParse(text) ? new URL(text) : undefined;
  if (!url || !/^https?:$/.test(url.protocol))
    throw new Error(`${name} must be an address such as https://apps.example`);
  return url;
}

const origins = (): Origins => ({ studio: read('PUBLIC_URL'), live: read('LIVE_ORIGIN') });

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d{1,5})?$/;

/** The origin that a Host header (RFC 9110, section 7.2) stands for; undefined for one that is not configured. */
export function originOfHost(host: string | null): string | undefined {
  const asked = host?.toLowerCase() ?? '';
  const { studio, live } = origins();
  for (const url of [studio, live]) if (url?.host === asked) return url.origin;
  const local = !studio || LOOPBACK.test(studio.host);
  return local && LOOPBACK.test(asked) ? `http://${asked}` : undefined;
}

/** May this host serve this path? Where the released applications have an origin of their own, each serves its own. */
export function servesPath(host: string, path: string): boolean {
  const { live } = origins();
  return !live || (live.host === host.toLowerCase()) === path.startsWith('/live/');
}

/** Is this part of the installation reached by https, so that cookies are for https only? */
export function isSecure(part: 'studio' | 'live'): boolean {
  const { studio, live } = origins();
  return (part === 'live' ? (live ?? studio) : studio)?.protocol === 'https:';
}

/** The address of a released application, for links in messages. */
export function liveAddress(slug: string): string {
  const { studio, live } = origins();
  const base = live ?? studio;
  if (!base) throw new Error('PUBLIC_URL is not set. bin/start sets it.');
  return `${base.origin}/live/${slug}`;
}
