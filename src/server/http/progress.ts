import { setImmediate } from 'node:timers/promises';
import { log, told } from '../log';
import { Refused } from './problem';

/** What the asker hears while it waits: how much is done of how much. */
export type Tell = (done: number, of: number) => void;

/**
 * Answers line by line (NDJSON) while work goes on: `{"done":5000,"of":9000}`, and at last either `{"value":…}` or
 * `{"problem":"…"}`. Where the asker goes away, the work is told by its signal.
 */
export function progressing<T>(work: (tell: Tell, signal: AbortSignal) => Promise<T>): Response {
  const gone = new AbortController();
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (line: object): void => {
        if (!gone.signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      void work((done, of) => say({ done, of }), gone.signal)
        .then(
          (value) => say({ value }),
          (error: unknown) => {
            if (gone.signal.aborted) return;
            if (!(error instanceof Refused)) log.error(told(error), 'Work in progress failed');
            const known = error instanceof Refused ? error.message : undefined;
            say({
              problem: known ?? 'The server could not do this. Nothing was changed. It has been logged.',
            });
          },
        )
        .finally(() => {
          if (!gone.signal.aborted) controller.close();
        });
    },
    cancel: () => gone.abort(),
  });
  return new Response(stream, { headers: { 'Content-Type': 'application/x-ndjson' } });
}

/** So long steps are taken before others that wait for the server have their turn, in milliseconds. */
const AT_A_TIME = 20;

/** Takes steps one after the other, and tells how far it is; others are answered in between. Rejects once it is told to stop. */
export async function takeSteps<T>(
  steps: Iterator<{ readonly done: number; readonly of: number }, T>,
  tell: Tell = () => undefined,
  signal?: AbortSignal,
): Promise<T> {
  let since = performance.now();
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) return step.value;
    if (performance.now() - since < AT_A_TIME) continue;
    tell(step.value.done, step.value.of);
    await setImmediate(undefined, signal && { signal });
    since = performance.now();
  }
}
