import { onNews } from './news';

/** So often something is sent, so that who is in between does not take the line for dead. */
const BEAT_MS = 20_000;
/** A line ends after so long: who opens the next one is asked again who they are. */
const LONGEST_MS = 5 * 60_000;

/**
 * The news of an application as server-sent events (HTML Living Standard, 9.2): `data: draft REVISION`, `release`,
 * `note` or `missed`. It ends by itself; browsers open the next by themselves. `here` is told at its start and at
 * every beat that somebody listens.
 */
export function newsStream(
  applicationId: string,
  gone: AbortSignal,
  here: () => void = () => undefined,
): Response {
  const text = new TextEncoder();
  let stop = (): void => undefined;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (line: string): void => controller.enqueue(text.encode(`${line}\n\n`));
      const silence = onNews(applicationId, (heard) => send(`data: ${heard}`));
      const beat = setInterval(() => {
        send(':');
        here();
      }, BEAT_MS);
      const end = setTimeout(() => {
        stop();
        controller.close();
      }, LONGEST_MS);
      stop = () => {
        silence();
        clearInterval(beat);
        clearTimeout(end);
      };
      gone.addEventListener('abort', stop);
      send('retry: 2000');
      here();
    },
    cancel: () => stop(),
  });
  // Nothing in between may hold it back to make it smaller.
  return new Response(body, {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-transform' },
  });
}
