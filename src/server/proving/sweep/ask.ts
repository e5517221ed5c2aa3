import type { KnownRecord } from '@/core/access';
import { type Already, Predictor, type Surprise } from '@/core/sweep';
import { type Answer, type Asker, type Asking, versionIn, withVersion } from './asker';
import { type Case, casesFor, type ChangeRequest } from './cases';
import type { Comparing } from './compare';
import { type Copy, putPeople } from './copy';
import { keptOtherwise, writeBehind } from './kept';
import { Once, requestsIn } from './once';
import type { SweptSession } from './session';
import type { SweptViewer } from './viewer';

/** What asking as a viewer takes, and who is told of it. */
interface Work {
  readonly copy: Copy;
  readonly known: readonly KnownRecord[];
  readonly comparing: Comparing;
  readonly already: Already;
  /** Is nothing left out for being like what was asked already? */
  readonly whole: boolean;
  readonly asker: Asker;
  readonly progress: {
    readonly stopped: boolean;
    readonly expect: (requests: number, skipped: number) => void;
    readonly add: (surprises: readonly Surprise[], circumstances?: string) => void;
  };
}

interface AskedNow {
  readonly predictor: Predictor;
  readonly cases: readonly Case[];
  readonly once: Once;
}

/** What is asked as a viewer at a moment, and what it is held against. */
export function askedAs(
  viewer: SweptViewer,
  moment: number,
  { copy, known: records, comparing, already, whole }: Omit<Work, 'asker' | 'progress'>,
): AskedNow {
  const once = new Once(viewer, moment, already, whole);
  const { access } = once;
  const { signedOut, standsIn, people, self } = viewer;
  const predictor = new Predictor({
    access,
    records,
    finder: comparing.marks,
    signedOut,
    standsIn,
    people,
  });
  const asked = { copy, access, predictor, records, signedOut, self, whole, once: once.ask };
  const all = casesFor(asked);
  const cases = viewer.brief && !whole ? ofEachRoute(all) : all;
  once.skipped += requestsIn(all) - requestsIn(cases);
  return { predictor, cases, once };
}

/** Of each route one case of each sort. */
function ofEachRoute(cases: readonly Case[]): Case[] {
  const sorts = new Set<string>();
  return cases.filter((one) => {
    const { method, path, headers } = one.asking;
    const [, route] = /^\/live\/[^/?]+(\/api\/[\w-]+)?/.exec(path) ?? [];
    const [, more] = /\/(export|bulk|actions)\b/.exec(path) ?? [];
    const is = 'reads' in one ? one.predicted.is : 'does' in one;
    const sort = JSON.stringify([method, route, more, headers?.['rsc'], headers?.['origin'], is]);
    return !sorts.has(sort) && sorts.add(sort);
  });
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
 * Asks everything as one viewer that nobody like them was asked: some at once of what changes nothing, then one by one
 * what they may change, each of which is put back. False where it was stopped.
 */
export async function askAs(viewer: SweptViewer, session: SweptSession, work: Work): Promise<boolean> {
  const { progress } = work;
  const asking = new AskingAs(viewer, session, work);
  const { cases, once } = asking.first;
  progress.expect(requestsIn(cases), once.skipped);
  await asking.all();
  if (!progress.stopped) once.note();
  return !progress.stopped;
}

/** The record is not as it was seen (RFC 9110, section 13.1.1). */
const CHANGED_MEANWHILE = 412;

type MismatchDetails = Omit<Surprise, 'viewer'>;

/** Is it asked while nothing else is: it changes something, or would change what somebody holds if it were let through? */
const isAlone = (one: Case): boolean => 'does' in one || ('refused' in one && isAboutPeople(one));

const isAboutPeople = ({ asking }: Case): boolean => /\/api\/(people|account)\b/.test(asking.path);

const isWrite = ({ asking }: Case): boolean => asking.method !== undefined;

/** One viewer's turn. */
class AskingAs {
  readonly first: AskedNow;
  private readonly now: () => AskedNow;
  /** The versions of records, as this viewer is told them, by where. */
  private readonly versions = new Map<string, Promise<string>>();
  /** Was something done that must be refused? */
  private letThrough = false;
  /** One after the other. */
  private takingBack: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly viewer: SweptViewer,
    private readonly session: SweptSession,
    private readonly work: Work,
  ) {
    this.now = freshly(() => askedAs(viewer, Date.now(), work));
    this.first = this.now();
    work.comparing.nextViewer();
  }

  async all(): Promise<void> {
    const { cases } = this.first;
    const { copy, asker, progress } = this.work;
    const { end } = this.viewer;
    if (end) {
      await this.ask({ path: `/live/${copy.slug}` });
      await end();
    }
    let next = 0;
    const alone: Case[] = [];
    const worker = async (): Promise<void> => {
      for (let one = cases[next++]; one && !progress.stopped; one = cases[next++])
        if (isAlone(one) || (this.letThrough && isWrite(one))) alone.push(one);
        else await this.askOnly(one, alone);
    };
    await Promise.all(Array.from({ length: asker.atOnce }, worker));
    await this.holdRecords('all forbidden changes');
    for (const one of alone) {
      if (progress.stopped) return;
      if (!('does' in one)) {
        await this.askOnly(one);
        continue;
      }
      for (const each of [one, ...(one.then ?? [])]) await this.carryOut(each);
      if (one.setsSession) await this.session.putBack();
    }
    await this.holdRecords('all that was done');
  }

  /** All records are to be as they were. */
  private async holdRecords(request: string): Promise<void> {
    const said = await keptOtherwise(this.work.copy);
    if (said !== undefined) this.tell([{ request, what: 'did', said }]);
  }

  private tell(surprises: readonly MismatchDetails[]): void {
    const { name, sort } = this.viewer;
    this.work.progress.add(
      surprises.map((each) => ({ viewer: name, ...each })),
      sort,
    );
  }

  /**
   * Asks what changes nothing. Between working it out and asking, a minute may have passed that matters. Where the record was
   * changed by what was let through beside it, it is asked again when it is `alone`.
   */
  private async askOnly(one: Case, alone?: Case[]): Promise<void> {
    const { comparing, copy } = this.work;
    const answer = await this.ask(one.asking);
    if (alone && answer.status === CHANGED_MEANWHILE) return void alone.push(one);
    let surprises = comparing.surprises(one, answer, this.first.predictor);
    if (surprises.length > 0 && 'reads' in one) {
      const again = this.now();
      const asked = JSON.stringify(one.asking);
      const same = again.cases.find(({ asking }) => JSON.stringify(asking) === asked) ?? one;
      surprises = comparing.surprises(same, await this.ask(same.asking), again.predictor);
    }
    this.tell(surprises);
    if (!('refused' in one) || !surprises.some(({ what }) => what === 'did')) return;
    // It is taken back at once, and no other write asked beside the next, so that it hides nothing else.
    this.letThrough = true;
    await (this.takingBack = this.takingBack.then(() => keptOtherwise(copy)));
    if (isAboutPeople(one)) await putPeople(copy, copy.people);
  }

  private async carryOut(one: ChangeRequest): Promise<void> {
    const { comparing, copy } = this.work;
    const { meanwhile } = one;
    const before = meanwhile && (await this.versionAt(one.asking.path));
    if (meanwhile) await writeBehind(copy, meanwhile.record);
    // Whether it was done is not known where the connection broke: it is done once more, on records as they were.
    const answer = await this.ask(one.asking, () => keptOtherwise(copy));
    const surprises = comparing.surprises(one, answer, this.first.predictor);
    const did = surprises.some(({ what }) => what === 'did');
    const said = await keptOtherwise(copy, did ? undefined : one.does);
    const request = comparing.requestOf(one);
    if (meanwhile && (versionIn(answer) === before) !== (meanwhile.version === 'same'))
      surprises.push({
        request,
        element: comparing.elementAbout(one),
        ...(meanwhile.version === 'same'
          ? { what: 'shows', said: 'Its version (ETag) is another once something hidden has changed.' }
          : { what: 'lacks', said: 'Its version (ETag) stays once something has changed that they see.' }),
      });
    const element = comparing.elementAbout(one);
    if (said !== undefined) surprises.push({ request, what: 'did', said, element });
    this.tell(surprises);
    if (did && isAboutPeople(one)) await putPeople(copy, copy.people);
  }

  private async ask(asking: Asking, before?: () => Promise<unknown>): Promise<Answer> {
    const { asker } = this.work;
    const { cookie } = this.session;
    const { seen } = asking;
    if (seen === undefined) return asker.ask({ ...asking, cookie }, before);
    // What was let through may have changed it.
    if (this.letThrough) this.versions.delete(seen);
    return asker.ask({ ...withVersion(asking, await this.versionAt(seen)), cookie }, before);
  }

  /** The version of the record there: what the server says it is, where it says one. */
  private versionAt(path: string): Promise<string> {
    let version = this.versions.get(path);
    if (!version) this.versions.set(path, (version = this.ask({ path }).then(versionIn)));
    return version;
  }
}
