import { setImmediate } from 'node:timers/promises';
import { log, errorForLog } from '../log';
import { failed, Refused } from './problem';

/** What the asker hears while it waits: how much is done of how much. */
export type Tell = (done: number, of: number) => void;

/** How work tells how far it is, and hears that nobody waits for it any more. */
export interface Run {
  readonly tell: Tell;
  readonly signal: AbortSignal;
  /** Hands on a part of a file, and waits until its reader has room for the next. */
  readonly write: (part: string) => Promise<void>;
}

/** An empty line is sent so often, so that what is in between does not take the connection for dead. */
const BEAT_MS = 20_000;

/**
 * Answers line by line (NDJSON) while work goes on: `{"done":5000,"of":9000}`, and at last either `{"value":…}` or
 * `{"problem":"…"}`. `work` makes the value as JSON. Where the asker goes away, the work is told by its signal.
 */
export function progressing(work: (tell: Tell, signal: AbortSignal) => Promise<string>): Response {
  const gone = new AbortController();
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (line: string): void => {
        if (!gone.signal.aborted) controller.enqueue(encoder.encode(`${line}\n`));
      };
      const beat = setInterval(() => say(''), BEAT_MS);
      say('');
      void work((done, of) => say(JSON.stringify({ done, of })), gone.signal)
        .then(
          (value) => say(`{"value":${value}}`),
          (error: unknown) => {
            if (gone.signal.aborted) return;
            if (!(error instanceof Refused)) log.error(errorForLog(error), 'A running operation failed');
            const refused = error instanceof Refused ? error : failed();
            say(JSON.stringify({ problem: refused.detail, code: refused.code }));
          },
        )
        .finally(() => {
          clearInterval(beat);
          if (!gone.signal.aborted) controller.close();
        });
    },
    cancel: () => gone.abort(),
  });
  return new Response(stream, { headers: { 'Content-Type': 'application/x-ndjson' } });
}

/** So long steps are taken before what the process hears in the meantime has its turn, in milliseconds. */
const AT_A_TIME = 20;

/** Takes steps one after the other, and tells how far it is, from the first on; the process hears in between. Rejects once it is told to stop. */
export async function takeSteps<T>(
  steps: Iterator<{ readonly done: number; readonly of: number }, T>,
  tell: Tell = () => undefined,
  signal?: AbortSignal,
): Promise<T> {
  let since = -Infinity;
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) return step.value;
    if (performance.now() - since < AT_A_TIME) continue;
    tell(step.value.done, step.value.of);
    await setImmediate(undefined, signal && { signal });
    since = performance.now();
  }
}
