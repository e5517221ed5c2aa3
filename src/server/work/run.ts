import type { Lines, Whole } from '@/contract/body';
import type { Answered, AsJson } from '../http/answering';
import { Refused, type Refusal } from '../http/problem';
import { progressing } from '../http/progress';
import { leaveSlot } from '../http/slot';
import type { Workplace } from '../studio/builder';
import type { Input, JobName, Output } from './jobs';
import { KeptAnswers } from './kept';
import { type HowToWork, Pool } from './pool';
import { FILES, QUICK, TO_THE_END } from './lanes';

const shared = globalThis as { zincGatePool?: Pool };

/** The process's one pool; its workers are begun when there is something to do. */
const pool = (): Pool => (shared.zincGatePool ??= new Pool());

function run(job: JobName, input: unknown, { signal, ...how }: HowToWork): Promise<string> {
  const lane = QUICK.has(job) ? 'quick' : FILES.has(job) ? 'files' : 'long';
  return pool()
    .run(job, input, { lane, ...how, ...(!TO_THE_END.has(job) && { signal }) })
    .catch((refusal: Refusal) => {
      // The pool is shared by bundles, each with a class of its own for this error: here it is the one that is known.
      throw Refused.as(refusal);
    });
}

/**
 * Has a worker do a job, and waits for what it makes.
 * @throws Refused for what it is refused for, for too much work of one owner, and where it takes too much memory or time
 */
export async function inWorker<K extends JobName>(
  job: K,
  input: Input<K>,
  how: HowToWork,
): Promise<Output<K>> {
  return JSON.parse(await run(job, input, how)) as Output<K>;
}

/** What the people of an application are to a bench when it is opened, as JSON: the page passes it on as it is. */
export const firstPeople = ({ applicationId, pins, builder }: Workplace): Promise<string> =>
  run('first-people', { applicationId, pins }, { owner: builder.id });

/** Answers with what a job makes, as JSON. Where it need not be done to its end, it stops when the asker goes away. */
export async function answerWhole<K extends JobName>(
  request: Request,
  job: K,
  input: Input<K>,
  owner: string,
  status = 200,
): Promise<Answered<AsJson<Output<K>>>> {
  leaveSlot(request);
  const body = await run(job, input, { owner, signal: request.signal });
  return new Response(body, { status, headers: { 'Content-Type': 'application/json' } });
}

/** Answers with what a job makes as a file of that type, under that name. */
export async function answerFile<K extends JobName>(
  request: Request,
  job: Output<K> extends string ? K : never,
  input: Input<K>,
  owner: string,
  file: { readonly name: string; readonly type: string },
): Promise<Answered<Whole>> {
  leaveSlot(request);
  const body = await inWorker(job as K, input, { owner, signal: request.signal });
  return new Response(body as string, {
    headers: { 'Content-Type': file.type, 'Content-Disposition': `attachment; filename="${file.name}"` },
  });
}

/**
 * Answers with a file as a job writes it, part by part: no faster than its reader takes it. What is refused before its
 * first part is refused as usual; what fails after it breaks the answer off, so that nobody takes it for whole.
 */
export async function answerStream<K extends JobName>(
  request: Request,
  job: K,
  input: Input<K>,
  owner: string,
  headers: Readonly<Record<string, string>>,
): Promise<Answered<Whole>> {
  leaveSlot(request);
  const gone = new AbortController();
  request.signal.addEventListener('abort', () => gone.abort(), { once: true });
  const encoder = new TextEncoder();
  let begun = (): void => undefined;
  let room = (): void => undefined;
  let rows: number | undefined;
  const first = new Promise<void>((resolve) => (begun = resolve));
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const writer = writable.getWriter();
  const made = run(job, input, {
    owner,
    signal: gone.signal,
    tell: (_, of) => (rows = of),
    write: async (part) => {
      begun();
      await Promise.race([
        writer.write(encoder.encode(part)),
        new Promise<void>((resolve) => (room = resolve)),
      ]);
    },
  });
  // Its reader has gone.
  writer.closed.catch(() => {
    gone.abort();
    room();
  });
  made
    .then(
      () => writer.close(),
      (error: unknown) => writer.abort(error),
    )
    .catch(() => undefined);
  await Promise.race([first, made]);
  return new Response(readable, {
    headers: { ...headers, ...(rows !== undefined && { [ROWS]: String(rows) }) },
  });
}

/** The header that tells how many rows a file will have, where its job tells that before its first part. */
const ROWS = 'Zinc-Rows';

const kept = new KeptAnswers();

/**
 * Answers line by line: how far the job is, and at last what it makes. The work stops when the asker goes away.
 * @param of what the answer depends on, where it is to be kept for who asks again
 */
export const answerByLine = <K extends JobName>(
  job: K,
  input: Input<K>,
  owner: string,
  of?: string,
): Answered<Lines<AsJson<Output<K>>>> =>
  progressing(async (tell, signal) => {
    const key = of === undefined ? undefined : `${job} ${of}`;
    const known = key === undefined ? undefined : kept.get(key);
    if (known !== undefined) return known;
    const made = await run(job, input, { owner, tell, signal });
    if (key !== undefined) kept.put(key, made);
    return made;
  });

/** Begins a worker where none is there, so that what is asked next does not wait for it. */
export const warmUp = (): void => pool().warmUp();
