import { existsSync, renameSync, rmSync } from 'node:fs';
import { Cluster } from './cluster.mjs';
import { readOptions } from './options.mjs';
import { say, Unable } from './run.mjs';
import { isOurs, readState } from './state.mjs';

const HELP = {
  backup: `bin/backup FILE

Backs up all data (people, records, definitions, audit trail) to one file while the server is running. The file contains all data, so protect it accordingly. An existing FILE is replaced only when the new backup is complete.`,
  restore: `bin/restore FILE

Restores a backup into an installation without data: a new copy, or after you have moved .data/ away. The next bin/start upgrades the data if necessary. Existing data is never overwritten.`,
};

const DATABASE = 'zinc_gate';

const what = process.argv[2] === 'restore' ? 'restore' : 'backup';
process.argv.splice(2, 1);

/** @param {Cluster} cluster @param {string} file */
function backUp(cluster, file) {
  const part = `${file}.part`;
  rmSync(part, { force: true });
  cluster.database(DATABASE);
  // Whoever reads the file has all the data: nobody else reads it, also while it is written.
  const usual = process.umask(0o077);
  cluster.asOwner('pg_dump', DATABASE, ['--format=custom', '--no-owner', '--no-acl', `--file=${part}`]);
  process.umask(usual);
  renameSync(part, file);
  say(`Backed up to ${file}.`);
}

/** @param {Cluster} cluster @param {string} file */
function restore(cluster, file) {
  if (!existsSync(file)) throw new Unable(`The file ${file} does not exist.`);
  cluster.database(DATABASE);
  const counted = "select count(*) from pg_tables where schemaname = 'public'";
  const tables = cluster.asOwner('psql', DATABASE, ['-XtA'], counted).output;
  if (tables !== '0')
    throw new Unable('This installation already contains data. Move .data/ away first or use another copy.');
  cluster.asOwner('pg_restore', DATABASE, [
    '--no-owner',
    '--no-acl',
    '--single-transaction',
    '--exit-on-error',
    file,
  ]);
  say('Backup restored. Run bin/start to continue.');
}

try {
  const { values, positionals } = readOptions(
    `bin/${what}`,
    { help: { type: 'boolean', default: false } },
    { positionals: true },
  );
  const [file, ...more] = positionals;
  if (values.help) say(HELP[what]);
  else if (!file || more.length > 0) throw new Unable(`Exactly one file is required: bin/${what} FILE`);
  else {
    if (process.env['DATABASE_URL'])
      throw new Unable(
        'DATABASE_URL is set. Use pg_dump and pg_restore on that database, as described in docs/operating.md.',
      );
    const cluster = new Cluster('postgres');
    const running = cluster.adopt();
    if (what === 'restore' && isOurs(readState().start, 'start.mjs'))
      throw new Unable('Zinc Gate is running. Stop it first.');
    if (!running) await cluster.start();
    try {
      (what === 'backup' ? backUp : restore)(cluster, file);
    } finally {
      rmSync(`${file}.part`, { force: true });
      if (!running) await cluster.stop();
    }
  }
} catch (error) {
  console.error(
    error instanceof Unable ? error.message : `The operation failed: ${/** @type {Error} */ (error).message}`,
  );
  process.exit(1);
}
