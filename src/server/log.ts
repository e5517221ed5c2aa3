import pino from 'pino';

/** The server's log: lines of JSON on standard error. Values of records and credentials never go in. */
export const log = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' }, pino.destination(2));
