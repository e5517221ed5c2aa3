import { Agent, request as ask } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';

/** What was answered, all of it as text. */
export interface Answer {
  readonly status: number;
  /** The Location header, where there is one. */
  readonly location: string;
  readonly headers: string;
  readonly body: string;
}

/** How something is asked. */
export interface Asking {
  readonly method?: string;
  readonly path: string;
  /** A Cookie header. */
  readonly cookie?: string | undefined;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: unknown;
  /** Where the version is read that takes the place of `VERSION` in headers and body. */
  readonly seen?: string;
}

/** Stands for the version of a record, as the viewer is told it. */
export const VERSION = 'swept-version';

/** The version in an answer (ETag; RFC 9110, section 8.8.3). */
export const versionIn = ({ headers }: Pick<Answer, 'headers'>): string =>
  /^etag\n"([^"]*)"/im.exec(headers)?.[1] ?? 'none';

/** The same, with the version in its place. */
export const withVersion = (asking: Asking, version: string): Asking =>
  JSON.parse(JSON.stringify(asking).replaceAll(VERSION, version)) as Asking;

const WITHIN_MS = 30_000;
/** So often something is asked again, after pauses each twice as long: half a minute in all, in which a server starts. */
const MOST_AGAIN = 7;
const FIRST_PAUSE_MS = 250;
/** The server is away, or has too much to do. */
const AWAY = 503;

/** Asks the server beside which this process runs, on kept connections, under the name by which it serves. */
export class Asker {
  private readonly agent: Agent;
  /** How many requests were made again since no answer came, or the server was away. */
  askedAgain = 0;

  constructor(
    private readonly server: URL,
    private readonly host: string,
    private readonly origin: string,
    readonly atOnce: number,
  ) {
    this.agent = new Agent({ keepAlive: true, maxSockets: atOnce });
  }

  /**
   * The answer; where none comes, it is asked again. `before` is done before each time but the first: for what changes
   * something, all is put back as it was.
   * @throws where no answer comes in the end
   */
  async ask(asking: Asking, before: () => Promise<unknown> = () => Promise.resolve()): Promise<Answer> {
    for (let again = 0; ; again++) {
      const answer = await this.once(asking).catch((error: unknown) => {
        if (again === MOST_AGAIN) throw error;
        return undefined;
      });
      if (answer && (answer.status !== AWAY || again === MOST_AGAIN)) return answer;
      this.askedAgain++;
      await pause(FIRST_PAUSE_MS * 2 ** again);
      await before();
    }
  }

  private once({ method = 'GET', path, cookie, headers = {}, body }: Asking): Promise<Answer> {
    const sent = body === undefined ? undefined : JSON.stringify(body);
    return new Promise((resolve, reject) => {
      const asking = ask(
        {
          agent: this.agent,
          hostname: this.server.hostname,
          port: this.server.port,
          method,
          path,
          timeout: WITHIN_MS,
          headers: {
            host: this.host,
            accept: 'text/html,application/json,*/*',
            ...(method !== 'GET' && { origin: this.origin }),
            ...(cookie !== undefined && { cookie }),
            ...(sent !== undefined && {
              'content-type': 'application/json',
              'content-length': String(Buffer.byteLength(sent)),
            }),
            ...headers,
          },
        },
        (answer) => {
          const parts: Buffer[] = [];
          answer.on('data', (part: Buffer) => parts.push(part));
          answer.on('error', reject);
          answer.on('end', () =>
            resolve({
              status: answer.statusCode ?? 0,
              location: answer.headers.location ?? '',
              headers: answer.rawHeaders.join('\n'),
              body: Buffer.concat(parts).toString('utf8'),
            }),
          );
        },
      );
      asking.on('timeout', () => asking.destroy(new Error('The request timed out')));
      asking.on('error', reject);
      asking.end(sent);
    });
  }

  end(): void {
    this.agent.destroy();
  }
}
