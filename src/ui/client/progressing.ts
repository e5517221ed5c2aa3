import type { Lines } from '@/contract/body';
import type { Route } from '@/contract/route';
import { type Asking, refused, type Reply, requestOf, unreachable } from './send';

interface Line {
  readonly done?: number;
  readonly of?: number;
  readonly value?: unknown;
  readonly problem?: string;
}

const failed = (detail: string): Reply<never> => ({ ok: false, detail, fields: {} });

/**
 * Asks a route that answers line by line (NDJSON): how far it is, and at last what came of it. Stopping it by the signal
 * stops it on the server, which then has changed nothing.
 */
export async function sendProgressing<Path extends string, Right, Sends, Reads, T>(
  route: Route<Path, Right, Sends, Reads, Lines<T>>,
  asking: Asking<Path, Sends>,
  onProgress: (done: number, of: number) => void,
  signal?: AbortSignal,
): Promise<Reply<T>> {
  try {
    const response = await fetch(...requestOf(route, asking, { signal }));
    if (!response.body) return failed('The server did not respond. Try again.');
    let left = '';
    let last: Line = {};
    const take = (text: string): void => {
      if (text.trim() === '') return;
      last = JSON.parse(text) as Line;
      if (last.done !== undefined) onProgress(last.done, last.of ?? last.done);
    };
    const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      const lines = (left + part.value).split('\n');
      left = lines.pop() ?? '';
      lines.forEach(take);
    }
    take(left);
    if (!response.ok) return refused(last);
    if ('value' in last) return { ok: true, value: last.value as T };
    return failed(last.problem ?? 'The connection was interrupted, so nothing was changed. Try again.');
  } catch {
    return signal?.aborted ? failed('Stopped. Nothing was changed.') : unreachable();
  }
}
