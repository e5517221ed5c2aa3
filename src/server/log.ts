import pino from 'pino';

export { rootOf, told } from './front/told.mjs';

/**
 * The server's log: lines of JSON on standard error. Values of records and credentials never go in, nor what an
 * error says of them: failures are told by `told`.
 */
export const log = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' }, pino.destination(2));
