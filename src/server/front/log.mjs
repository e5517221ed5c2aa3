import pino from 'pino';
import { config } from '../config.mjs';

/**
 * The server's log: lines of JSON on standard error. Values of records and credentials never go in, nor what an
 * error says of them: failures are told by `told`, requests by the shape of their path.
 */
export const log = pino({ level: config().logLevel, base: null }, pino.destination(2));

/**
 * A path without what somebody wrote in it: only words of lower case stay, as routes have them.
 * @param {string} path
 */
export const shapeOf = (path) =>
  (path.split('?')[0] ?? '')
    .split('/')
    .slice(0, 12)
    .map((part) => (/^[a-z_.-]{0,40}$/.test(part) ? part : '*'))
    .join('/');
