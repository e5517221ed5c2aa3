import { hash, verify } from '@node-rs/argon2';
import { randomBytes } from 'node:crypto';

/** Argon2id with the parameters of RFC 9106's second choice, scaled to 19 MiB; `Algorithm.Argon2id` is 2. */
const PARAMETERS = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashPassword = (password: string): Promise<string> => hash(password, PARAMETERS);

/** Of a secret of 256 random bits, which nobody finds by trying: with the least that Argon2 takes. */
export const hashSecret = (secret: string): Promise<string> =>
  hash(secret, { ...PARAMETERS, memoryCost: 8, timeCost: 1 });

let nobody: Promise<string> | undefined;

/**
 * Whether the password is the hash's. Without a hash (no such account) it takes as long and says no, so
 * that the time does not tell which accounts there are.
 */
export async function isPassword(stored: string | undefined, password: string): Promise<boolean> {
  nobody ??= hashPassword(randomBytes(16).toString('hex'));
  const right = await verify(stored ?? (await nobody), password);
  return right && stored !== undefined;
}

/** A password for people to copy: 4 groups of 4, 80 bits. */
export function randomPassword(): string {
  const letters = '0123456789abcdefghjkmnpqrstvwxyz';
  const text = Array.from(randomBytes(16), (byte) => letters[byte % 32]).join('');
  return text.match(/.{4}/g)?.join('-') ?? text;
}
