import { Refused } from '../http/problem';
import { onChange } from './notices';

/** So often something is sent, so that who is in between does not take the line for dead. */
const BEAT_MS = 20_000;
/** A line ends after so long: who opens the next one is asked again who they are. */
const LONGEST_MS = 5 * 60_000;
/** So many lines one builder has open at once: a tab that is looked at has one. */
const MOST_LINES = 24;

/** Who listens: whose line it is, whether they still may, and what is told whenever they are heard of. */
export interface Listener {
  readonly id: string;
  readonly may: () => Promise<boolean>;
  readonly here: () => void;
}

const shared = globalThis as { zincGateLines?: Map<string, number> };
/** Lines that are open, by whose they are. */
const lines = (shared.zincGateLines ??= new Map());

/**
 * The news of an application as server-sent events (HTML Living Standard, 9.2): `data: draft REVISION`, `release`,
 * `note` or `missed`. It ends by itself; browsers open the next by themselves. Before anything is sent it is asked whether
 * its reader still may hear it: else it ends.
 */
export function newsStream(applicationId: string, gone: AbortSignal, { id, may, here }: Listener): Response {
  const open = lines.get(id) ?? 0;
  if (open >= MOST_LINES)
    throw new Refused(429, 'many-lines', 'You look at too much at once. Close some of its pages.', {
      headers: { 'Retry-After': '30' },
    });
  lines.set(id, open + 1);
  const text = new TextEncoder();
  let stop = (): void => undefined;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      let isOpen = true;
      /** What is sent comes in the order in which it happened. */
      let before = Promise.resolve();
      const end = (): void => {
        if (!isOpen) return;
        stop();
        controller.close();
      };
      const send = (line: string): void => {
        before = before.then(async () => {
          if (!isOpen) return;
          const still = await may().catch(() => false);
          if (!still) end();
          else if (isOpen) controller.enqueue(text.encode(`${line}\n\n`));
        });
      };
      const silence = onChange(applicationId, (heard) => send(`data: ${heard}`));
      const beat = setInterval(() => {
        send(':');
        here();
      }, BEAT_MS);
      const longest = setTimeout(end, LONGEST_MS);
      stop = () => {
        if (!isOpen) return;
        isOpen = false;
        silence();
        clearInterval(beat);
        clearTimeout(longest);
        const left = (lines.get(id) ?? 1) - 1;
        if (left > 0) lines.set(id, left);
        else lines.delete(id);
      };
      gone.addEventListener('abort', stop);
      if (gone.aborted) stop();
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
