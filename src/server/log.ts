import pino from 'pino';

/** The server's log: lines of JSON on standard error. Values of records and credentials never go in. */
export const log = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' }, pino.destination(2));

/** What is told of a failure: never its message, which may quote what somebody wrote or what is stored. */
export interface Told {
  readonly name: string;
  /** PostgreSQL's SQLSTATE, or Node's word for what went wrong with a connection or a file. */
  readonly code?: string;
  readonly table?: string;
  readonly constraint?: string;
  /** Where in the code: the frames of the stack, without the message above them. */
  readonly at: readonly string[];
}

const word = (from: object, key: string): string | undefined => {
  const value: unknown = (from as Record<string, unknown>)[key];
  return typeof value === 'string' && /^[\w.-]{1,80}$/.test(value) ? value : undefined;
};

/** The error that caused it all: libraries wrap what the database said together with what it was asked. */
export function rootOf(error: unknown): unknown {
  let root = error;
  for (let n = 0; n < 5 && root instanceof Error && root.cause instanceof Error; n++) root = root.cause;
  return root;
}

/** The failure as it may be logged. */
export function told(error: unknown): Told {
  const root = rootOf(error);
  if (!(root instanceof Error)) return { name: typeof root, at: [] };
  const outer = error instanceof Error ? (error.stack ?? '') : '';
  const [code, table, constraint] = ['code', 'table', 'constraint'].map((key) => word(root, key));
  return {
    name: word(root, 'name') ?? 'Error',
    ...(code && { code }),
    ...(table && { table }),
    ...(constraint && { constraint }),
    at: outer
      .split('\n')
      .filter((line) => /^ {4}at /.test(line))
      .slice(0, 12)
      .map((line) => line.trim()),
  };
}
