import { LIMITS } from './limits.mjs';

/**
 * @typedef {object} Target
 * @property {string} path in normal form: what the front decides by is what the framework serves
 * @property {string} query with its `?`, or empty
 */

/** What may stand in a path as it is (RFC 3986, section 3.3), and what browsers leave as it is beside it. */
const PATH = /^(\/([\w\-.~!$&'()*+,;=:@[\]|]|%[0-9A-Fa-f]{2})*)+$/;
/** What may stand in a query; browsers leave some of it unescaped that RFC 3986 does not. */
const QUERY = /^(\?[\x21\x22\x24-\x7e]*)?$/;
const UNRESERVED = /^[\w\-.~]$/;

/**
 * Reads the target of a request once (RFC 9112, section 3.2.1: an absolute path and a query), and brings its path to
 * normal form: what need not be escaped is not (RFC 3986, section 6.2.2).
 *
 * @param {string} target
 * @returns {Target | undefined} undefined for an abnormal one: with dot segments, empty segments, backslashes, escaped
 *   slashes, control characters, or escapes that are not UTF-8, or that hide another escape of these
 */
export function readTarget(target) {
  const cut = target.indexOf('?');
  const [written, query] = cut < 0 ? [target, ''] : [target.slice(0, cut), target.slice(cut)];
  if (!PATH.test(written) || !QUERY.test(query) || /%00/.test(query)) return undefined;
  const path = written.replace(/%[0-9A-Fa-f]{2}/g, (escape) => {
    const character = String.fromCharCode(parseInt(escape.slice(1), 16));
    return UNRESERVED.test(character) ? character : escape.toUpperCase();
  });
  const segments = path.slice(1).split('/');
  // A slash at the end is the framework's to lead on from.
  if (segments.length > 1 && segments.at(-1) === '') segments.pop();
  return path === '/' || segments.every(isPlain) ? { path, query } : undefined;
}

/** Is it a segment that means the same however often it is read? @param {string} segment */
function isPlain(segment) {
  if (segment === '') return false;
  let read = segment;
  for (let n = 0; n < 3; n++) {
    if (read === '.' || read === '..' || /[/\\\x00-\x1f\x7f]/.test(read)) return false;
    try {
      read = decodeURIComponent(read);
    } catch {
      // An escape that is not UTF-8; after the first reading a percent sign may stand for itself.
      return n > 0;
    }
  }
  return true;
}

/** Does the query have more parameters than are read? @param {string} query */
export const hasTooMany = (query) => query.split('&', LIMITS.parameters + 1).length > LIMITS.parameters;
