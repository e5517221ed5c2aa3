import pino from 'pino';
import { config } from '../config.mjs';
import { errorForLog } from './log-error.mjs';

/**
 * The server's log: lines of JSON on standard error. Values of records and credentials never go in, nor what an
 * error says of them: failures are told by `errorForLog`, requests by the shape of their path.
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

/** @param {unknown} one */
const safe = (one) =>
  one instanceof Error
    ? errorForLog(one)
    : typeof one === 'string'
      ? one
          .split('\n')[0]
          ?.replace(/(Failed query|params).*/s, '')
          .slice(0, 160)
      : typeof one;
/** Logs what something is, not what it quotes. @param {'error' | 'warn' | 'info'} level @param {unknown[]} all */
export const say = (level, ...all) => log[level]({ said: all.map(safe) });

/** What the framework says goes to the log by what it is, not by what it quotes. */
export function logConsole() {
  for (const level of /** @type {const} */ (['error', 'warn', 'log', 'info']))
    globalThis.console[level] = (...all) => say(level === 'log' ? 'info' : level, ...all);
}
