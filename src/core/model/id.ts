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

/** A UUID (RFC 9562, version 4), also where the page is not in a secure context and has no `randomUUID`. */
export function newUuid(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] as number) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] as number) & 0x3f) | 0x80;
  const hex = Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}
