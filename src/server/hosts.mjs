import { config } from './config.mjs';

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d{1,5})?$/;

/**
 * The origin that a Host header (RFC 9110, section 7.2) stands for; undefined for one that is not configured.
 * @param {string | null | undefined} host
 * @returns {string | undefined}
 */
export function originOfHost(host) {
  const asked = host?.toLowerCase() ?? '';
  const { publicUrl: studio, liveOrigin: live } = config();
  for (const url of [studio, live]) if (url?.host === asked) return url.origin;
  const local = !studio || LOOPBACK.test(studio.host);
  return local && LOOPBACK.test(asked) ? `http://${asked}` : undefined;
}

/** What pages of both parts are made of: the build's files, and the icon. */
const SHARED = /^\/(_next\/static\/|icon\.svg$)/;

/**
 * May this host serve this path? Where the released applications have an origin of their own, each serves its own, and
 * both serve what their pages are made of.
 * @param {string} host
 * @param {string} path in normal form (`front/target.mjs`)
 * @returns {boolean}
 */
export function servesPath(host, path) {
  const { liveOrigin: live } = config();
  return !live || SHARED.test(path) || (live.host === host.toLowerCase()) === path.startsWith('/live/');
}

/**
 * Is this part of the installation reached by https, so that cookies are for https only?
 * @param {'studio' | 'live'} part
 * @returns {boolean}
 */
export function isSecure(part) {
  const { publicUrl: studio, liveOrigin: live } = config();
  return (part === 'live' ? (live ?? studio) : studio)?.protocol === 'https:';
}

/**
 * The address of the studio, for links in messages.
 * @returns {string}
 */
export function studioAddress() {
  const { publicUrl: studio } = config();
  if (!studio) throw new Error('PUBLIC_URL is not set. Start the server with bin/start, or set it yourself.');
  return `${studio.origin}/studio`;
}

/**
 * The address of a released application, for links in messages.
 * @param {string} slug
 * @returns {string}
 */
export function liveAddress(slug) {
  const { publicUrl: studio, liveOrigin: live } = config();
  const base = live ?? studio;
  if (!base) throw new Error('PUBLIC_URL is not set. Start the server with bin/start, or set it yourself.');
  return `${base.origin}/live/${slug}`;
}
