import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { DATA, isAlive } from './run.mjs';

/** What is running, so that the next start can find it if this one is killed. */
const STATE = `${DATA}/running.json`;

/** @typedef {{ start?: number, server?: number, address?: string }} State */

/** Replaced whole, so that it is never read half-written. @param {State} state */
export function writeState(state) {
  const next = `${STATE}.${process.pid}`;
  writeFileSync(next, JSON.stringify(state));
  renameSync(next, STATE);
}

/** What is noted there; nothing, where that cannot be read: then it is replaced. @returns {State} */
export function readState() {
  try {
    const state = JSON.parse(readFileSync(STATE, 'utf8'));
    return typeof state === 'object' && state !== null ? state : {};
  } catch {
    return {};
  }
}

export const dropState = () => rmSync(STATE, { force: true });

/** A process id may belong to somebody else by now: look at what it runs. @param {unknown} pid @param {string} program */
export function isOurs(pid, program) {
  if (typeof pid !== 'number' || !Number.isInteger(pid) || pid <= 1 || !isAlive(pid)) return false;
  const file = `/proc/${pid}/cmdline`;
  return existsSync(file) && readFileSync(file, 'utf8').includes(program);
}
