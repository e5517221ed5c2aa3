import { randomBytes } from 'node:crypto';

/** The same on every answer. */
const ALWAYS = Object.entries({
  'X-Content-Type-Options': 'nosniff',
  'X-Frame-Options': 'DENY',
  'Referrer-Policy': 'same-origin',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Permissions-Policy': 'camera=(), microphone=(), geolocation=()',
});

/** Scripts only with this answer's nonce, everything else only from here (Content Security Policy, level 3). */
const policyWith = (/** @type {string} */ nonce) =>
  [
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

/**
 * Puts on an answer what protects who reads it. The page is told its nonce in headers of the request: the framework
 * reads it from the policy there.
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 * @param {string} origin what the answer is served as
 */
export function protect({ headers }, response, origin) {
  for (const [name, value] of ALWAYS) response.setHeader(name, value);
  const nonce = randomBytes(16).toString('base64');
  const policy = policyWith(nonce);
  headers['content-security-policy'] = policy;
  headers['x-nonce'] = nonce;
  response.setHeader('Content-Security-Policy', policy);
  if (origin.startsWith('https:'))
    response.setHeader('Strict-Transport-Security', 'max-age=31536000; includeSubDomains');
}
