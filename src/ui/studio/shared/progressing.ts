import type { Reply } from '../../live/host';

interface Line {
  readonly done?: number;
  readonly of?: number;
  readonly value?: unknown;
  readonly problem?: string;
  readonly detail?: string;
  /** Where it was refused: what is wrong with which field. */
  readonly errors?: readonly { readonly field: string; readonly detail: string }[];
}

const failed = (detail: string): Reply<never> => ({ ok: false, detail, fields: {} });

/**
 * Sends a form with files, or JSON, and reads an answer that comes line by line (NDJSON): how far it is, and at last what came
 * of it. Stopping it by the signal stops it on the server, which then has changed nothing.
 */
export async function sendProgressing<T>(
  url: string,
  body: FormData | object,
  onProgress: (done: number, of: number) => void,
  signal?: AbortSignal,
): Promise<Reply<T>> {
  try {
    const response = await fetch(url, {
      method: 'POST',
      ...(body instanceof FormData
        ? { body }
        : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
      ...(signal && { signal }),
    });
    if (!response.body) return failed('The server did not answer.');
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
    if (!response.ok) {
      const fields = Object.fromEntries((last.errors ?? []).map((one) => [one.field, one.detail]));
      return { ok: false, detail: last.detail ?? 'The server refused this.', fields };
    }
    if ('value' in last) return { ok: true, value: last.value as T };
    return failed(last.problem ?? 'The answer broke off. Nothing was changed; try again.');
  } catch {
    return failed(
      signal?.aborted
        ? 'Stopped. Nothing was changed.'
        : 'The server cannot be reached. Nothing was changed; try again.',
    );
  }
}
