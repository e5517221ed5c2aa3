import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { ROOT, run, runLong, say, Unable } from './run.mjs';

/** Where Debian keeps the newest PostgreSQL's programs; undefined where there is none. */
export function postgresPrograms() {
  const base = '/usr/lib/postgresql';
  const versions = existsSync(base) ? readdirSync(base).map(Number).filter(Number.isFinite) : [];
  const newest = versions.sort((a, b) => b - a).find((one) => existsSync(`${base}/${one}/bin/initdb`));
  return newest === undefined ? undefined : `${base}/${newest}/bin`;
}

/** Installs Debian's PostgreSQL if it is missing, and returns where its programs are. */
export function needPostgres() {
  if (!postgresPrograms()) {
    // Debian's package would start a cluster of its own on port 5432; ours is enough.
    const config = '/etc/postgresql-common';
    if (process.getuid?.() === 0 && !existsSync(`${config}/createcluster.conf`)) {
      mkdirSync(config, { recursive: true });
      writeFileSync(`${config}/createcluster.conf`, 'create_main_cluster = false\n');
    }
    installDebian('PostgreSQL', 'postgresql');
  }
  const found = postgresPrograms();
  if (!found)
    throw new Unable('PostgreSQL was installed, but its programs were not found in /usr/lib/postgresql.');
  return found;
}

/** Installs Debian's Chromium if it is missing. */
export function needChromium() {
  if (!existsSync('/usr/bin/chromium')) installDebian('Chromium', 'chromium');
}

/** @param {string} name @param {string} debianPackage */
function installDebian(name, debianPackage) {
  if (process.getuid?.() !== 0)
    throw new Unable(
      `${name} is missing. Install it and run this command again: sudo apt-get install ${debianPackage}`,
    );
  say(`Installing ${name} from Debian packages (first start only)…`);
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env, quiet: true });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', debianPackage], { env, quiet: true });
}

/** Installs the npm packages that the lock file names, unless these very ones are here. */
export async function needNpmPackages() {
  const stamp = `${ROOT}/node_modules/.zinc-gate-lock`;
  const wanted = createHash('sha256')
    .update(readFileSync(`${ROOT}/package-lock.json`))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Installing npm packages (first start only)…');
  // Not `npm ci`: it refuses a lock file in which optional packages of other systems are missing.
  await runLong('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(stamp, wanted);
}
