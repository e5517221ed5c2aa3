import type { BodyKind } from '@/contract/body';
import type { Params, Route } from '@/contract/route';
import { parseBody, readJson } from './body';
import { handle, json, nothing } from './handle';
import { readCsv, readForm } from './upload';

declare const ANSWER: unique symbol;

/** A response that is known to say this. */
export interface Answered<T> extends Response {
  readonly [ANSWER]?: T;
}

/** What may be given where its JSON says `T`: a moment, say, becomes text. */
type Sendable<T> = string extends T
  ? T | Date
  : T extends readonly (infer One)[]
    ? readonly Sendable<One>[]
    : T extends object
      ? { readonly [Key in keyof T]: Sendable<T[Key]> }
      : T;

/** What becomes of it as JSON. */
export type AsJson<T> = T extends Date
  ? string
  : T extends readonly (infer One)[]
    ? readonly AsJson<One>[]
    : T extends object
      ? { readonly [Key in keyof T]: AsJson<T[Key]> }
      : T;

/** What a handler is given of its request. */
export interface HandlerInput<Path extends string, Reads> {
  readonly request: Request;
  readonly params: Params<Path>;
  readonly query: URLSearchParams;
  /** Read and checked; refused before, where it was not of the contract's shape. */
  readonly body: Reads;
}

/** What a handler gives: what its contract says, or a response that says it. Nothing is 204. */
export type HandlerResult<Answer> = [Answer] extends [undefined]
  ? Answered<Answer> | Promise<Answered<Answer>> | Promise<void>
  : OrLater<Sendable<Answer> | Answered<Answer>>;

type OrLater<T> = T | Promise<T>;

/** As Next.js calls a route handler: it holds the names of the contract's path against those of the folders. */
type Handler<Path extends string> = (
  request: Request,
  context: { readonly params: Promise<Params<Path>> },
) => Promise<Response>;

/** The one way from a contract to a route handler: who asks is found first, then what they sent is read, then it is done. */
export function answering<Path extends string, Right, Sends, Reads, Answer, Who>(
  contract: Route<Path, Right, Sends, Reads, Answer>,
  whoAsks: (request: Request, params: Params<Path>) => Promise<Who>,
  work: (who: Who, asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
): Handler<Path> {
  return handle<{ readonly params: Promise<Params<Path>> }>(async (request, context) => {
    const params = await context.params;
    const who = await whoAsks(request, params);
    const body = (await readBody(request, contract.body)) as Reads;
    const { searchParams: query } = new URL(request.url);
    const given = await (work(who, { request, params, query, body }) as Promise<unknown>);
    if (given === undefined) return nothing();
    if (given instanceof Response) return given;
    return json(given, { status: contract.status ?? 200 });
  });
}

/** The body that a contract asks for; refused where it is not of that kind and shape. */
export async function readBody(
  request: Request,
  body: BodyKind<unknown, unknown> | undefined,
): Promise<unknown> {
  if (!body) return undefined;
  if (body.is !== 'json') return (body.is === 'form' ? readForm : readCsv)(request, body.most);
  const text = await readJson(request, body.bounds.bytes);
  return body.beside ? text : parseBody(text, await body.schema(), body.bounds);
}
