import { originOfHost, servesPath } from './server/hosts';
import { NextResponse, type NextRequest } from 'next/server';

/**
 * Gives every page its content policy: scripts only with this answer's nonce, everything else only from
 * here. Only hosts that are configured are served, and where the released applications have an origin of their
 * own (`LIVE_ORIGIN`), each serves only its own addresses.
 */
export function proxy(request: NextRequest): NextResponse {
  const { pathname } = request.nextUrl;
  // No address and no search has a null character, and PostgreSQL takes none.
  if (/%00/.test(request.url)) return new NextResponse('Bad request', { status: 400 });
  const host = request.headers.get('host') ?? '';
  const origin = originOfHost(host);
  if (origin === undefined) return new NextResponse('Nothing is served under this name.', { status: 421 });
  if (!servesPath(host, pathname)) return new NextResponse('Not found', { status: 404 });
  const nonce = btoa(crypto.randomUUID());
  const policy = [
    "default-src 'none'",
    `script-src 'nonce-${nonce}' 'strict-dynamic'`,
    // Positions that scripts set on elements are attributes; style sheets come from here, or with the nonce.
    `style-src-elem 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "font-src 'self'",
    "img-src 'self' data:",
    "connect-src 'self'",
    "form-action 'self'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('content-security-policy', policy);
  headers.set('x-nonce', nonce);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  if (origin.startsWith('https:'))
    response.headers.set('strict-transport-security', 'max-age=31536000; includeSubDomains');
  return response;
}

export const config = { matcher: '/((?!_next/static|health).*)' };
