import { existsSync, renameSync, rmSync } from 'node:fs';
import { Cluster } from './cluster.mjs';
import { readOptions } from './options.mjs';
import { say, Unable } from './run.mjs';
import { isOurs, readState } from './state.mjs';

const HELP = {
  backup: `bin/backup FILE

Writes all data (people, records, definitions, what happened) to one file, while it is used. Whoever has that
file has the data: keep it as safe. FILE is replaced only once the new one is whole.`,
  restore: `bin/restore FILE

Puts the data of a backup where there is none yet: in a new copy, or after moving .data/ away. The next
bin/start brings it up to date. Nothing is put over data that is there.`,
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
  if (!existsSync(file)) throw new Unable(`There is no file ${file}.`);
  cluster.database(DATABASE);
  const counted = "select count(*) from pg_tables where schemaname = 'public'";
  const tables = cluster.asOwner('psql', DATABASE, ['-XtA'], counted).output;
  if (tables !== '0')
    throw new Unable('There is data here already. Move .data/ away first, or use another copy.');
  cluster.asOwner('pg_restore', DATABASE, [
    '--no-owner',
    '--no-acl',
    '--single-transaction',
    '--exit-on-error',
    file,
  ]);
  say('Restored. bin/start goes on from here.');
}

try {
  const { values, positionals } = readOptions(
    `bin/${what}`,
    { help: { type: 'boolean', default: false } },
    { positionals: true },
  );
  const [file, ...more] = positionals;
  if (values.help) say(HELP[what]);
  else if (!file || more.length > 0) throw new Unable(`Name one file: bin/${what} FILE`);
  else {
    if (process.env['DATABASE_URL'])
      throw new Unable(
        'DATABASE_URL is set: use pg_dump and pg_restore on that database, as docs/operating.md tells.',
      );
    const cluster = new Cluster('postgres');
    const running = cluster.adopt();
    if (what === 'restore' && isOurs(readState().start, 'start.mjs'))
      throw new Unable('Zinc Gate is running. End it first.');
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
    error instanceof Unable ? error.message : `It failed: ${/** @type {Error} */ (error).message}`,
  );
  process.exit(1);
}
