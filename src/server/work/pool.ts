import { fork, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { log } from '../log';
import { away, cancelled, Refused } from '../http/problem';
import {
  IDLE_AFTER,
  KEPT_MB,
  type Lane,
  LANES,
  MEMORY_MB,
  RETIRE_MB,
  STOP_WITHIN,
  WAITING_ALL,
  WAITING_EACH,
  WORK_WITHIN,
} from './limits';
import type { FromWorker, ToWorker } from './messages';

/** From the project's folder: it is not part of what is built. */
const PROGRAM = 'bin/lib/program.mjs';

/** A piece of work, in the line or being worked on. */
interface Piece {
  readonly id: number;
  readonly job: string;
  readonly input: unknown;
  /** Whose it is: a builder, or a person. */
  readonly owner: string;
  readonly lane: Lane;
  readonly tell: (done: number, of: number) => void;
  readonly write: (part: string) => Promise<void>;
  readonly resolve: (json: string) => void;
  readonly reject: (error: Refused) => void;
}

/** A process that works, and on what. */
interface Worker {
  readonly child: ChildProcess;
  piece?: Piece | undefined;
  stopping?: NodeJS.Timeout | undefined;
  late?: NodeJS.Timeout | undefined;
  idle?: NodeJS.Timeout | undefined;
}

export interface HowToWork {
  readonly owner: string;
  /** `long` where nothing is said. */
  readonly lane?: Lane | undefined;
  readonly tell?: ((done: number, of: number) => void) | undefined;
  /** Takes a part of a file, and has room for the next when it resolves. */
  readonly write?: ((part: string) => Promise<void>) | undefined;
  readonly signal?: AbortSignal | undefined;
}

const tooLarge = (): Refused =>
  new Refused(
    413,
    'too-large',
    `This needs more memory than is allowed (${MEMORY_MB} MB). Nothing was changed. Try again with less data.`,
  );

const tooLong = (): Refused =>
  new Refused(
    503,
    'too-long',
    `This takes longer than ${WORK_WITHIN / 60_000} minutes. Nothing was changed. Try again with less data.`,
  );

const tooMany = (): Refused =>
  new Refused(
    429,
    'too-many',
    'You have too many requests in progress. Wait until some of them finish, then try again.',
    { headers: { 'Retry-After': '5' } },
  );

/**
 * The processes that work beside the server, and the line before them, in two lanes. Of one person, a few pieces are
 * worked on at once; the others wait, and those of other people pass them. What nobody waits for any more is stopped: it is told
 * to, and ended with its process if it does not stop by itself.
 */
export class Pool {
  private readonly workers = new Set<Worker>();
  private readonly line: Piece[] = [];
  private next = 1;

  constructor(private readonly memory = MEMORY_MB) {}

  /** Has a piece of work done: what it makes, as JSON. Rejects with why it was refused. */
  run(
    job: string,
    input: unknown,
    { owner, lane = 'long', tell = () => undefined, write = () => Promise.resolve(), signal }: HowToWork,
  ): Promise<string> {
    if (signal?.aborted) return Promise.reject(cancelled());
    const mine = [...this.line, ...this.atWork()].filter(
      (one) => one.owner === owner && one.lane === lane,
    ).length;
    if (mine >= WAITING_EACH) return Promise.reject(tooMany());
    if (this.line.length >= WAITING_ALL) return Promise.reject(away());
    return new Promise((resolve, reject) => {
      const piece: Piece = { id: this.next++, job, input, owner, lane, tell, write, resolve, reject };
      signal?.addEventListener('abort', () => this.stop(piece), { once: true });
      this.line.push(piece);
      this.begin();
    });
  }

  /** Begins a process where there is none. */
  warmUp(): void {
    if (this.workers.size === 0) this.newWorker();
  }

  /** Ends all processes: for tests, and for programs that end. */
  end(): void {
    for (const { child } of this.workers) child.kill('SIGKILL');
  }

  private atWork(): Piece[] {
    return [...this.workers].flatMap(({ piece }) => piece ?? []);
  }

  private begin(): void {
    const atWork = this.atWork();
    const place = this.line.findIndex(({ owner, lane }) => {
      const here = atWork.filter((one) => one.lane === lane);
      const mine = here.filter((one) => one.owner === owner);
      return here.length < LANES[lane].workers && mine.length < LANES[lane].each;
    });
    if (place < 0) return;
    const worker = [...this.workers].find(({ piece }) => !piece) ?? this.newWorker();
    const [piece] = this.line.splice(place, 1);
    if (!piece) return;
    worker.piece = piece;
    clearTimeout(worker.idle);
    worker.late = setTimeout(() => this.give(worker, (one) => one.reject(tooLong())), WORK_WITHIN).unref();
    const { id, job, input } = piece;
    this.send(worker, { id, job, input });
    this.begin();
  }

  private stop(piece: Piece): void {
    const place = this.line.indexOf(piece);
    if (place >= 0) {
      this.line.splice(place, 1);
      return piece.reject(cancelled());
    }
    const worker = [...this.workers].find((one) => one.piece === piece);
    if (!worker) return;
    piece.reject(cancelled());
    this.send(worker, { stop: piece.id });
    worker.stopping = setTimeout(() => worker.child.kill('SIGKILL'), STOP_WITHIN).unref();
  }

  /** Answers who waits for the worker's piece, and ends the worker with what it still does. */
  private give(worker: Worker, how: (piece: Piece) => void): void {
    if (worker.piece) how(worker.piece);
    worker.child.kill('SIGKILL');
  }

  private send({ child }: Worker, message: ToWorker): void {
    // One that has just ended is noticed by its end.
    child.send(message, () => undefined);
  }

  private newWorker(): Worker {
    const child = fork(/* turbopackIgnore: true */ join(process.cwd(), PROGRAM), ['server/work/worker'], {
      execArgv: [`--max-old-space-size=${this.memory}`],
      serialization: 'advanced',
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    const worker: Worker = { child };
    this.workers.add(worker);
    child.on('message', (message: FromWorker) => this.hear(worker, message));
    child.on('error', () => undefined);
    child.on('exit', (code, signal) => this.ended(worker, signal === 'SIGABRT' || code === 134));
    // A program with nothing else to do ends.
    child.unref();
    child.channel?.unref();
    return worker;
  }

  private hear(worker: Worker, message: FromWorker): void {
    const { piece } = worker;
    if (piece?.id !== message.id) return;
    if ('done' in message) return piece.tell(message.done, message.of);
    if ('part' in message)
      return void piece.write(message.part).then(() => this.send(worker, { more: message.id }));
    this.rest(worker, message.mb);
    if ('value' in message) piece.resolve(message.value);
    else piece.reject(Refused.as(message.refused));
  }

  /** The worker has nothing to do for now. */
  private rest(worker: Worker, mb: number): void {
    this.letGo(worker);
    if (mb > RETIRE_MB) {
      this.workers.delete(worker);
      worker.child.kill('SIGKILL');
    } else
      worker.idle = setTimeout(() => {
        if (this.workers.size === 1 && mb <= KEPT_MB) return;
        worker.child.kill('SIGKILL');
        this.workers.delete(worker);
        this.warmUp();
      }, IDLE_AFTER).unref();
    this.begin();
  }

  private letGo(worker: Worker): void {
    worker.piece = undefined;
    clearTimeout(worker.stopping);
    clearTimeout(worker.late);
  }

  private ended(worker: Worker, ofMemory: boolean): void {
    this.workers.delete(worker);
    const { piece } = worker;
    this.letGo(worker);
    clearTimeout(worker.idle);
    if (piece) {
      if (ofMemory) log.warn({ job: piece.job }, 'A piece of work took more memory than there is for it');
      piece.reject(ofMemory ? tooLarge() : away());
    }
    this.begin();
  }
}
