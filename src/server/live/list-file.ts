import { liveCookie } from '../security/sessions';
import { notThere } from '../http/problem';
import type { Run } from '../http/progress';
import { WholeList } from '../records/lists';
import type { RecordScope } from '../records/read';
import { readQuery } from './screen-page';
import { scopeOf, visit } from './visit';

/** A list of a released application as a file, for whoever has the session with this token. */
export async function liveListFile(
  slug: string,
  token: string | undefined,
  list: string,
  query: string,
  run: Run,
): Promise<void> {
  const { name } = await liveCookie(slug);
  const cookies = { get: (asked: string) => (asked === name && token ? { value: token } : undefined) };
  const scope = async (): Promise<RecordScope> => {
    const now = await visit(slug, cookies);
    if (!now) throw notThere();
    return scopeOf(now);
  };
  await listFile(scope, list, query, run);
}

/**
 * A list as CSV, whole, with the search, filter and sort of its page. Who asks is looked up again on the way: what they
 * may no longer have is not sent.
 */
export async function listFile(
  scope: () => Promise<RecordScope>,
  id: string,
  query: string,
  { write, tell, signal }: Run,
): Promise<void> {
  const params = new URLSearchParams(query);
  const find = async (): Promise<WholeList> =>
    WholeList.find(await scope(), id, 'export', params.get('record') ?? undefined);
  const list = await find();
  for await (const { text, done, of } of list.csv(readQuery(params, list.shown), find)) {
    signal.throwIfAborted();
    tell(done, of);
    await write(text);
  }
}
