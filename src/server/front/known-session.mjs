import { createHash } from 'node:crypto';
import pg from 'pg';
import { databaseUrl } from '../config.mjs';

const WITHIN = 2000;

/** The tokens of sessions in a Cookie header (RFC 6265, section 4.2). @param {string | undefined} cookies */
export const tokensIn = (cookies = '') =>
  cookies.split(/;\s*/).flatMap((cookie) => {
    const [, name = '', token = ''] = /^((?:__Host-)?zinc-[^=]+)=(.+)$/.exec(cookie) ?? [];
    return name === '' || name.includes('zinc-device.') ? [] : [token];
  });

/** As sessions are kept: by the hash of their token. @param {string} token */
const hashed = (token) => createHash('sha256').update(token).digest('hex');

/** The keys of the sessions of a request. @param {string | undefined} cookies @returns {string[]} */
export const sessionKeys = (cookies) => tokensIn(cookies).map((token) => `session ${hashed(token)}`);

/** Whether a request belongs to a session that is in force: a large file is read from no one else. */
export class KnownSessions {
  constructor() {
    this.pool = new pg.Pool({
      connectionString: databaseUrl(),
      max: 2,
      connectionTimeoutMillis: WITHIN,
      query_timeout: WITHIN,
    });
    this.pool.on('error', () => undefined);
  }

  /** @param {string | undefined} cookies @returns {Promise<boolean>} */
  async isSignedIn(cookies) {
    const hashes = tokensIn(cookies).map(hashed);
    if (hashes.length === 0) return false;
    const { rows } = await this.pool.query(
      'select exists (select from sessions where token_hash = any($1) and expires_at > now()) as is',
      [hashes],
    );
    return rows[0].is;
  }

  end() {
    return this.pool.end();
  }
}
