import type { KnownRecord } from '@/core/access';
import { Predictor, type Surprise } from '@/core/sweep';
import type { Asker } from './asker';
import { type Case, casesFor, type Deed, inFull } from './cases';
import type { Comparing } from './compare';
import type { Copy } from './copy';
import { keptOtherwise } from './kept';
import type { SweptSession } from './session';
import type { SweptViewer } from './viewers';

/** What asking as a viewer takes, and who is told of it. */
interface Work {
  readonly copy: Copy;
  readonly known: readonly KnownRecord[];
  readonly comparing: Comparing;
  readonly asker: Asker;
  readonly progress: {
    readonly stopped: boolean;
    readonly expect: (requests: number) => void;
    readonly add: (surprises: readonly Surprise[]) => void;
  };
}

/** What is asked as a viewer at a moment, and what it is held against. */
export function askedAs(
  viewer: SweptViewer,
  moment: number,
  work: Pick<Work, 'copy' | 'known' | 'comparing'>,
): { readonly predictor: Predictor; readonly cases: readonly Case[] } {
  const { copy, known: records, comparing } = work;
  const access = viewer.access(moment);
  const { signedOut, standsIn, people, self, besides } = viewer;
  const predictor = new Predictor({
    access,
    records,
    finder: comparing.marks,
    signedOut,
    standsIn,
    people,
  });
  const cases = casesFor({ copy, access, predictor, records, signedOut, self });
  if (!besides) return { predictor, cases };
  const already = new Set(askedAs(besides, moment, work).cases.map(inFull));
  return { predictor, cases: cases.filter((one) => !already.has(inFull(one))) };
}

const FRESH_MS = 500;

/** What was worked out last, unless that is a while ago. */
function freshly<T>(work: () => T): () => T {
  let last: { readonly at: number; readonly value: T } | undefined;
  return () => {
    if (!last || Date.now() - last.at > FRESH_MS) last = { at: Date.now(), value: work() };
    return last.value;
  };
}

/**
 * Asks everything as one viewer: some at once of what changes nothing, then one by one what they may change, each of which is put back.
 * False where it was stopped.
 */
export async function askAs(
  viewer: SweptViewer,
  { cookie, putBack }: SweptSession,
  work: Work,
): Promise<boolean> {
  const { copy, comparing, asker, progress } = work;
  const now = freshly(() => askedAs(viewer, Date.now(), work));
  const { predictor, cases } = now();
  comparing.nextViewer();
  progress.expect(cases.reduce((sum, one) => sum + 1 + ('does' in one ? (one.then ?? []).length : 0), 0));
  const tell = (surprises: readonly Omit<Surprise, 'viewer'>[]): void =>
    progress.add(surprises.map((each) => ({ viewer: viewer.name, ...each })));
  const ask = async (n: number, one: Case): Promise<Omit<Surprise, 'viewer'>[]> => {
    const surprises = comparing.surprises(one, await asker.ask({ ...one.asking, cookie }), predictor);
    if (surprises.length === 0 || !('reads' in one)) return surprises;
    // Between working it out and asking, a minute may have passed that matters.
    const again = now();
    const same = again.cases[n];
    if (!same || same.asking.path !== one.asking.path) return surprises;
    return comparing.surprises(same, await asker.ask({ ...same.asking, cookie }), again.predictor);
  };
  let next = 0;
  const worker = async (): Promise<void> => {
    for (let n = next++; n < cases.length && !progress.stopped; n = next++) {
      const one = cases[n];
      if (one && !('does' in one)) tell(await ask(n, one));
    }
  };
  await Promise.all(Array.from({ length: asker.atOnce }, worker));
  const otherwise = await keptOtherwise(copy);
  if (otherwise !== undefined) tell([{ request: 'all that may not be done', what: 'did', said: otherwise }]);
  const carryOut = async (one: Deed): Promise<void> => {
    // Whether it was done is not known where the connection broke: it is done once more, on records as they were.
    const answer = await asker.ask({ ...one.asking, cookie }, () => keptOtherwise(copy));
    const surprises = comparing.surprises(one, answer, predictor);
    const said = await keptOtherwise(
      copy,
      surprises.some(({ what }) => what === 'did') ? undefined : one.does,
    );
    const request = comparing.requestOf(one);
    tell([...surprises, ...(said === undefined ? [] : [{ request, what: 'did' as const, said }])]);
  };
  for (const one of cases) {
    if (progress.stopped) return false;
    if (!('does' in one)) continue;
    for (const each of [one, ...(one.then ?? [])]) await carryOut(each);
    if (one.setsSession) await putBack();
  }
  return !progress.stopped;
}
