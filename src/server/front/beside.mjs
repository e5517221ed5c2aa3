import { spawn } from 'node:child_process';

const AGAIN_AFTER = 5000;
/** Megabytes that the objects of such a process may take: with more it ends, and is run again. */
const MEMORY_MB = 768;

/**
 * Runs a program of ours in a process beside the server, and again a while after it ends by itself. It reads from this
 * process, and so ends with it, whatever becomes of that.
 * @param {string} folder the project's
 * @param {string} program by its path in `src`, without the ending
 * @param {Record<string, string>} environment
 * @returns {() => void} ends it
 */
export function runBeside(folder, program, environment) {
  let stopping = false;
  /** @type {import('node:child_process').ChildProcess | undefined} */
  let child;
  const begin = () => {
    if (stopping) return;
    child = spawn(
      process.execPath,
      [`--max-old-space-size=${MEMORY_MB}`, `${folder}/bin/lib/program.mjs`, program],
      {
        cwd: folder,
        env: { ...process.env, ...environment },
        stdio: ['pipe', 'inherit', 'inherit'],
      },
    );
    child.on('error', () => undefined);
    child.stdin?.on('error', () => undefined);
    child.on('exit', () => setTimeout(begin, AGAIN_AFTER).unref());
  };
  begin();
  return () => {
    stopping = true;
    child?.kill('SIGTERM');
  };
}
