/** An opaque, unchanging name of one thing in a definition. Never used again once given. */
export type Id = string;

const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';

/**
 * Makes a new id of `length` characters from an alphabet without look-alikes (5 bits each).
 * Random from the platform's cryptographic source, so ids cannot be guessed from one another.
 */
export function newId(length = 12): Id {
  const bytes = crypto.getRandomValues(new Uint8Array(length));
  return Array.from(bytes, (byte) => LETTERS[byte % 32]).join('');
}
