import { IncomingMessage } from 'node:http';
import { LIMITS } from './limits.mjs';

/**
 * @typedef {object} Bounds
 * @property {number} most bytes
 * @property {number} within milliseconds until it is whole
 * @property {number} rate bytes a second, at least
 */

/** @type {Readonly<Record<'small' | 'file', Bounds>>} */
export const BOUNDS = {
  small: { most: LIMITS.body, within: LIMITS.bodyWithin, rate: LIMITS.bodyRate },
  file: { most: LIMITS.file, within: LIMITS.fileWithin, rate: LIMITS.fileRate },
};

/**
 * The length that a request announces for its body, in bytes (RFC 9112, section 6.2); 0 without one. A body of unknown
 * length is not taken: its `Transfer-Encoding` is refused before.
 * @param {IncomingMessage} request
 */
export const lengthOf = ({ headers }) => Number(headers['content-length'] ?? 0);

/**
 * The request with its whole body: a stream that was read once is not read again by the framework.
 * @param {IncomingMessage} request @param {Buffer} body
 */
function withBody(request, body) {
  const whole = new IncomingMessage(request.socket);
  const { headers, rawHeaders, method, url, httpVersion, httpVersionMajor, httpVersionMinor } = request;
  Object.assign(whole, { headers, rawHeaders, method, url, httpVersion, httpVersionMajor, httpVersionMinor });
  whole.complete = true;
  whole.push(body);
  whole.push(null);
  return whole;
}

/**
 * Waits until a body has arrived whole. A sender that is too slow, or that goes away, is not waited for. The bytes are
 * accounted for as they come, until `release` is called.
 *
 * @param {IncomingMessage} request
 * @param {Bounds} bounds
 * @param {import('./shares.mjs').Shares} bytes what is held of all bodies
 * @param {readonly string[]} keys whose bytes these are
 * @returns {Promise<{ received: IncomingMessage | 'slow' | 'gone' | 'full', release: () => void }>} the request with its body
 */
export function receiveBody(request, { within, rate }, bytes, keys) {
  const length = lengthOf(request);
  let held = 0;
  const release = () => {
    bytes.use(keys, -held);
    held = 0;
  };
  if (length === 0) return Promise.resolve({ received: request, release });
  return new Promise((resolve) => {
    /** @type {Buffer[]} */
    const parts = [];
    const begun = performance.now();
    /** @param {IncomingMessage | 'slow' | 'gone' | 'full'} received */
    const end = (received) => {
      clearInterval(watch);
      request.off('data', onData).off('end', onEnd).off('close', onClose);
      request.pause();
      if (typeof received === 'string') release();
      resolve({ received, release });
    };
    /** @param {Buffer} part */
    const onData = (part) => {
      if (!bytes.hasRoom(keys, part.length)) return end('full');
      bytes.use(keys, part.length);
      held += part.length;
      parts.push(part);
    };
    const onEnd = () => end(withBody(request, Buffer.concat(parts)));
    const onClose = () => end('gone');
    const watch = setInterval(() => {
      const since = performance.now() - begun;
      const expected = (rate * (since - LIMITS.rateAfter)) / 1000;
      if (since > within || held < expected) end('slow');
    }, 250);
    request.on('data', onData).on('end', onEnd).on('close', onClose);
  });
}
