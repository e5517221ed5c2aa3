/**
 * What is told of a failure: never its message, which may quote what somebody wrote or what is stored.
 * @typedef {object} Told
 * @property {string} name
 * @property {string} [code] PostgreSQL's SQLSTATE, or Node's word for what went wrong with a connection or a file
 * @property {string} [table]
 * @property {string} [constraint]
 * @property {readonly string[]} at where in the code: the frames of the stack, without the message above them
 */

/** @param {object} from @param {string} key */
function word(from, key) {
  const value = /** @type {Record<string, unknown>} */ (from)[key];
  return typeof value === 'string' && /^[\w.-]{1,80}$/.test(value) ? value : undefined;
}

/**
 * The error that caused it all: libraries wrap what the database said together with what it was asked.
 * @param {unknown} error
 * @returns {unknown}
 */
export function rootOf(error) {
  let root = error;
  for (let n = 0; n < 5 && root instanceof Error && root.cause instanceof Error; n++) root = root.cause;
  return root;
}

/**
 * The failure as it may be logged.
 * @param {unknown} error
 * @returns {Told}
 */
export function errorForLog(error) {
  const root = rootOf(error);
  if (!(root instanceof Error)) return { name: typeof root, at: [] };
  const [code, table, constraint] = ['code', 'table', 'constraint'].map((key) => word(root, key));
  const stack = error instanceof Error ? (error.stack ?? '') : '';
  return {
    name: word(root, 'name') ?? 'Error',
    ...(code && { code }),
    ...(table && { table }),
    ...(constraint && { constraint }),
    at: stack
      .split('\n')
      .filter((line) => /^ {4}at /.test(line))
      .slice(0, 12)
      .map((line) => line.trim()),
  };
}
