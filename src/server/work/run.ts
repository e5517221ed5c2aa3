import { progressing } from '../http/progress';
import { leaveSlot } from '../http/slot';
import type { Input, JobName, Output } from './jobs';
import { KeptAnswers } from './kept';
import { type HowToWork, Pool } from './pool';
import { QUICK } from './quick';

const shared = globalThis as { zincGatePool?: Pool };

/** The process's one pool; its workers are begun when there is something to do. */
const pool = (): Pool => (shared.zincGatePool ??= new Pool());

const run = (job: JobName, input: unknown, how: HowToWork): Promise<string> =>
  pool().run(job, input, { lane: QUICK.has(job) ? 'quick' : 'long', ...how });

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

/** Answers with what a job makes, as JSON. The work stops when the asker goes away. */
export async function answerWhole<K extends JobName>(
  request: Request,
  job: K,
  input: Input<K>,
  owner: string,
  status = 200,
): Promise<Response> {
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
): Promise<Response> {
  leaveSlot(request);
  const body = await inWorker(job as K, input, { owner, signal: request.signal });
  return new Response(body as string, {
    headers: { 'Content-Type': file.type, 'Content-Disposition': `attachment; filename="${file.name}"` },
  });
}

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
): Response =>
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
