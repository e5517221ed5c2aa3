import { spawn, spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

/** The project's folder. */
export const ROOT = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');

/** Where all data is: `.data/` in the project, or what ZINC_GATE_DATA names. */
export const DATA = process.env['ZINC_GATE_DATA'] ?? `${ROOT}/.data`;

/** What the last run of the tests left. */
export const RESULTS = `${DATA}/test-results`;

/** @param {string} text */
export const say = (text) => console.log(text);

// A reader of what is said that has gone is no reason to fall.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

/** A failure that its reader can mend; told without a stack. */
export class Unable extends Error {}

/**
 * Runs a command to its end, in the project's folder. Its output is shown, or returned where `quiet`.
 * @param {string} command
 * @param {string[]} args
 * @param {{ env?: Record<string, string | undefined>, input?: string, quiet?: boolean, allowFailure?: boolean, uid?: number, gid?: number, cwd?: string }} [options]
 */
export function run(command, args, options = {}) {
  const { env, input, quiet = false, allowFailure = false, uid, gid, cwd = ROOT } = options;
  const done = spawnSync(command, args, {
    cwd,
    env: { ...process.env, ...env },
    ...(input !== undefined && { input }),
    stdio: [input === undefined ? 'ignore' : 'pipe', quiet ? 'pipe' : 'inherit', quiet ? 'pipe' : 'inherit'],
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
    ...(uid !== undefined && { uid }),
    ...(gid !== undefined && { gid }),
  });
  if (done.error && !allowFailure) throw new Unable(`${command} could not be run: ${done.error.message}`);
  if (done.status !== 0 && !allowFailure)
    throw new Unable(`${command} ${args[0] ?? ''} failed.\n${done.stderr ?? ''}`.trim());
  return { status: done.status ?? 1, output: (done.stdout ?? '').trim() };
}

/** What runs now and is waited for, to be ended with all that it started when we are told to end. */
/** @type {Set<import('node:child_process').ChildProcess>} */
const waitedFor = new Set();

/**
 * As `run`, for what takes its time: signals are heard meanwhile. It runs in a process group of its own, so that
 * `endWaitedFor` ends all of it.
 * @param {string} command
 * @param {string[]} args
 * @param {{ env?: Record<string, string | undefined>, allowFailure?: boolean }} [options]
 * @returns {Promise<{ status: number, output: string, said: string }>}
 */
export function runLong(command, args, { env, allowFailure = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      env: { ...process.env, ...env },
      detached: true,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    waitedFor.add(child);
    let [output, said] = ['', ''];
    child.stdout.on('data', (text) => (output += text));
    child.stderr.on('data', (text) => (said += text));
    child.on('error', (error) => reject(new Unable(`${command} could not be run: ${error.message}`)));
    child.on('close', (status) => {
      waitedFor.delete(child);
      if (status === 0 || allowFailure)
        resolve({ status: status ?? 1, output: output.trim(), said: said.trim() });
      else reject(new Unable(`${command} ${args[0] ?? ''} failed.\n${lastLines(said || output)}`.trim()));
    });
  });
}

/** @param {string} text */
const lastLines = (text) => text.trim().split('\n').slice(-20).join('\n');

/** Ends what is waited for, with all that it started, at once. */
export function endWaitedFor() {
  for (const { pid } of waitedFor)
    try {
      if (pid) process.kill(-pid, 'SIGKILL');
    } catch {
      // It has ended by itself.
    }
}

/** Whether a process is there. @param {number} pid */
export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return /** @type {NodeJS.ErrnoException} */ (error).code === 'EPERM';
  }
}

/** @param {number} ms */
export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Asks a process to end and waits; ends it by force after `seconds`.
 * @param {number} pid
 * @param {NodeJS.Signals} signal
 * @param {number} seconds
 */
export async function endProcess(pid, signal, seconds = 20) {
  if (!isAlive(pid)) return;
  process.kill(pid, signal);
  for (let waited = 0; waited < seconds * 20; waited++) {
    if (!isAlive(pid)) return;
    await pause(50);
  }
  process.kill(pid, 'SIGKILL');
}

/** A program of the project's own packages. @param {string} path */
export const inPackages = (path) => `${ROOT}/node_modules/${path}`;

export { spawn };
