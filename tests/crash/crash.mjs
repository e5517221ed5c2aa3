import { freePort } from '../../bin/lib/cluster.mjs';
import { serve, setUpDatabase } from '../../bin/lib/server.mjs';

/**
 * Edits a draft over HTTP, kills server and PostgreSQL outright in the middle of it, starts both again, and
 * looks for every edit that had been acknowledged. Returns what is missing, in words; empty if nothing is.
 * @param {import('../../bin/lib/cluster.mjs').Cluster} cluster
 */
export async function crash(cluster) {
  const database = cluster.database('zinc_crash', { anew: true });
  const { demo } = await setUpDatabase(database);
  if (!demo) return ['the demo was not seeded'];
  const before = await serve(database.url, await freePort());
  const session = await signIn(before.address, demo);
  /** @type {string[]} */
  const acknowledged = [];
  let killed = false;
  const editing = (async () => {
    for (let n = 0; !killed && n < 5000; n++) {
      const line = { id: `crash${n}`, who: { kind: 'person', person: `p${n}` }, what: 'see' };
      const edit = { do: 'addLine', gate: 's_stores', line, at: 0 };
      const answer = await post(before.address, session, { base: n, ask: 'edit', edit }).catch(
        () => undefined,
      );
      if (answer?.ok) acknowledged.push(line.id);
      else return;
    }
  })();
  while (acknowledged.length < 80) await new Promise((resolve) => setTimeout(resolve, 5));
  process.kill(before.child.pid ?? 0, 'SIGKILL');
  process.kill(cluster.pid, 'SIGKILL');
  killed = true;
  await editing;
  await cluster.start();
  const after = await serve(cluster.database('zinc_crash').url, await freePort());
  try {
    const answer = await fetch(`${after.address}/studio/api/applications/larkfield/draft?since=0`, {
      headers: { Cookie: session },
    });
    const { since } = await answer.json();
    /** @type {Set<string>} */
    const kept = new Set(
      since.map((/** @type {{ edit: { line: { id: string } } }} */ one) => one.edit.line.id),
    );
    const page = await fetch(`${after.address}/studio/larkfield/gates`, { headers: { Cookie: session } });
    return [
      ...acknowledged
        .filter((id) => !kept.has(id))
        .map((id) => `the edit ${id} was acknowledged and is gone`),
      ...(page.ok ? [] : ['the draft cannot be opened']),
    ];
  } finally {
    await after.stop();
  }
}

/** The cookie of a new session in the studio. @param {string} address @param {{ email: string, password: string }} demo */
export async function signIn(address, { email, password }) {
  const answer = await fetch(`${address}/studio/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  return (answer.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
}

/** @param {string} address @param {string} session @param {object} body */
const post = (address, session, body) =>
  fetch(`${address}/studio/api/applications/larkfield/draft`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Cookie: session },
    body: JSON.stringify(body),
  });
