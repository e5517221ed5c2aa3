import { parseArgs } from 'node:util';
import { Unable } from './run.mjs';

/**
 * The options of a command. One that is not known is told in one line, with where to read more.
 * @template {import('node:util').ParseArgsConfig['options']} T
 * @param {string} command
 * @param {NonNullable<T>} options
 * @param {{ positionals?: boolean }} [how]
 */
export function readOptions(command, options, { positionals = false } = {}) {
  try {
    return parseArgs({ options, allowPositionals: positionals });
  } catch (error) {
    const [line = ''] = /** @type {Error} */ (error).message.split('. ');
    throw new Unable(`${line}. \`${command} --help\` lists the options.`);
  }
}

/** A port that can be listened on. @param {string} text */
export function readPort(text) {
  const port = Number(text);
  if (!/^\d{1,5}$/.test(text) || port > 65_535)
    throw new Unable(`--port must be a number from 1 to 65535 (or 0 for any free port), but is “${text}”.`);
  return port;
}

/** What is set in the environment is checked before anything is started. The packages must be there. */
export async function checkEnvironment() {
  const { readConfig } = await import('../../src/server/config.mjs');
  try {
    readConfig(process.env);
  } catch (error) {
    throw new Unable(/** @type {Error} */ (error).message);
  }
}
