import ipaddr from 'ipaddr.js';
import { shareOf } from './limits.mjs';

/**
 * Something of which there is only so much, and of which no one gets more than a quarter: connections, bytes, slots.
 * Each use names its keys: the address it is from and the session it has.
 */
export class Shares {
  /** @param {number} most of all together */
  constructor(most) {
    this.most = most;
    this.each = shareOf(most);
    this.used = 0;
    /** @type {Map<string, number>} */
    this.by = new Map();
  }

  /** Is there room for so much more of these? @param {readonly string[]} keys @param {number} much */
  hasRoom(keys, much = 1) {
    return this.used + much <= this.most && this.isWithin(keys, much);
  }

  /** Would each of these be within its share? @param {readonly string[]} keys @param {number} much */
  isWithin(keys, much = 1) {
    return keys.every((key) => (this.by.get(key) ?? 0) + much <= this.each);
  }

  /** Uses so much, whether there is room or not. @param {readonly string[]} keys @param {number} much */
  use(keys, much = 1) {
    this.used += much;
    for (const key of keys) {
      const now = (this.by.get(key) ?? 0) + much;
      if (now > 0) this.by.set(key, now);
      else this.by.delete(key);
    }
  }
}

/**
 * Under which key an address has its share: an IPv6 network of 64 bits is one (RFC 4291, section 2.5.4), since whoever
 * has one has all of its addresses.
 * @param {string} address
 */
export function addressKey(address) {
  if (!ipaddr.isValid(address)) return 'from unknown';
  const read = ipaddr.process(address);
  return read.kind() === 'ipv4'
    ? `from ${read.toString()}`
    : `from ${read.toByteArray().slice(0, 8).join('.')}`;
}
