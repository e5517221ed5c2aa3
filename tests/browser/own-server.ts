import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import pg from 'pg';
import { freePort } from '../../bin/lib/cluster.mjs';
import { RESULTS } from '../../bin/lib/run.mjs';
import { serve } from '../../bin/lib/server.mjs';

/** A server of one's own, on a database that is as the demo was set up. */
export interface OwnServer {
  readonly address: string;
  /** As the owner of its tables. */
  readonly database: string;
  readonly stop: () => Promise<void>;
}

/**
 * Begins one; `name` is its database's. bin/test says where the database is that is copied. `liveHost`: the released
 * applications have an origin of their own, of this name.
 */
export async function ownServer(name: string, liveHost?: string): Promise<OwnServer> {
  const [owner, app] = [urlFrom('TEMPLATE_OWNER_URL'), urlFrom('TEMPLATE_URL')];
  const template = owner.pathname.slice(1);
  const client = new pg.Client({ connectionString: withDatabase(owner, 'postgres') });
  await client.connect();
  try {
    await client.query(`drop database if exists ${name} with (force)`);
    await client.query(`create database ${name} template ${template}`);
    await client.query(`revoke connect, temporary on database ${name} from public`);
    await client.query(`grant connect on database ${name} to ${app.username}`);
  } finally {
    await client.end();
  }
  const port = await freePort();
  const { child, address, stop } = await serve(withDatabase(app, name), port, {
    ...(liveHost !== undefined && { LIVE_ORIGIN: `http://${liveHost}:${port}` }),
    POSTGRES_HOSTS: '127.0.0.1',
  });
  // Should this process be ended before it has ended its server, bin/test does.
  const note = `${RESULTS}/servers/${child.pid}`;
  mkdirSync(`${RESULTS}/servers`, { recursive: true });
  writeFileSync(note, '');
  return {
    address,
    database: withDatabase(owner, name),
    stop: async () => {
      await stop();
      rmSync(note, { force: true });
    },
  };
}

function urlFrom(variable: string): URL {
  const url = process.env[variable];
  if (!url) throw new Error(`${variable} is not set. Run the browser tests by bin/test browser.`);
  return new URL(url);
}

function withDatabase(url: URL, name: string): string {
  const changed = new URL(url);
  changed.pathname = `/${name}`;
  return changed.href;
}
