import { liveCookie } from '../security/sessions';
import { notThere } from '../http/problem';
import type { Run } from '../http/progress';
import type { Choice } from '@/contract/records';
import { WholeList } from '../records/lists';
import type { RecordScope } from '../records/read';
import { readQuery } from './screen-page';
import { scopeOf, visit } from './visit';

/** What whoever has the session with this token gets of a released application, each time it is asked. */
export async function liveScope(
  slug: string,
  token: string | undefined,
): Promise<() => Promise<RecordScope>> {
  const { name } = await liveCookie(slug);
  const cookies = { get: (asked: string) => (asked === name && token ? { value: token } : undefined) };
  return async () => {
    const now = await visit(slug, cookies);
    if (!now) throw notThere();
    return scopeOf(now);
  };
}

/** What can be chosen of a list for changing many at once, with the search and filter of its page. */
export async function listChoices(
  scope: RecordScope,
  id: string,
  query: string,
  run: Run,
): Promise<Choice[]> {
  const params = new URLSearchParams(query);
  const list = await WholeList.find(scope, id, 'bulk', params.get('record') ?? undefined);
  return list.choices(readQuery(params, list.shown), run);
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
