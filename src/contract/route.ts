import type { BodyKind, Lines, Whole } from './body';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/**
 * What a builder needs to ask a route of an application: to belong to it (`read`), to be more than a reviewer of it
 * (`change`), the right to manage its people or to release, or to own it: then `owner` says what is theirs to do.
 */
export type ApplicationRight = 'read' | 'change' | 'people' | 'release' | { readonly owner: string };

/** Of records as data: to read them, or to change them; live ones take a right that the owner gives. */
export interface RecordsRight {
  readonly records: 'read' | 'change';
}

/** Of any builder, of whoever visits a released application (which decides itself what each gets), of anybody. */
type OtherRight = 'builder' | 'visitor' | 'anybody';

/** The names after the colons of a path: `id` in `/people/:id/link`. */
type NamesIn<Path extends string> = Path extends `${infer Before}?${string}`
  ? NamesIn<Before>
  : Path extends `${string}:${infer Name}/${infer Rest}`
    ? Name | NamesIn<Rest>
    : Path extends `${string}:${infer Name}`
      ? Name
      : never;
type SplitAtAnd<Text extends string> = Text extends `${infer One}&${infer Rest}`
  ? One | SplitAtAnd<Rest>
  : Text;
/** The names after the question mark of a path: `q` and `page` in `/people?q&page`. */
type QueryIn<Path extends string> = Path extends `${string}?${infer Query}` ? SplitAtAnd<Query> : never;

export type Params<Path extends string> = Readonly<Record<NamesIn<Path>, string>>;
export type Query<Path extends string> = Readonly<
  Partial<Record<QueryIn<Path>, string | number | undefined>>
>;

/** What one route is asked and answers: stated here once, for the server and for who asks it. */
export interface Route<Path extends string, Right, Sends = undefined, Reads = undefined, Answer = undefined> {
  readonly method: Method;
  /** With a colon before each name that stands for something, and with the names of its query. */
  readonly path: Path;
  readonly right: Right;
  readonly body?: BodyKind<Sends, Reads>;
  /** The status of its answer, where that is not 200, or 204 for nothing. */
  readonly status?: 201;
  /** Only a type: what it answers, as its JSON says it. */
  readonly answer?: Answer;
}

/** A route of any kind, for those who only look at it. */
export type AnyRoute = Route<string, ApplicationRight | RecordsRight | OtherRight, unknown, unknown, unknown>;

type Unanswered<P extends string, R, S, B> = Route<P, R, S, B> & {
  /** Answers this as JSON. */
  answers<A>(): Route<P, R, S, B, A>;
  /** Answers line by line how far it is, and at last this. */
  answersByLine<A>(): Route<P, R, S, B, Lines<A>>;
  /** Answers in a format of its own: a file, or a stream. */
  answersWhole(): Route<P, R, S, B, Whole>;
};

interface More<Sends, Reads> {
  readonly body?: BodyKind<Sends, Reads>;
  readonly status?: 201;
}

function route<P extends string, R, S, B>(of: Route<P, R, S, B>): Unanswered<P, R, S, B> {
  const as = <A>(): Route<P, R, S, B, A> => of as Route<P, R, S, B, A>;
  return { ...of, answers: as, answersByLine: as, answersWhole: as };
}

/** A route of one application of the studio. */
export const ofApplication = <const P extends string, S = undefined, B = undefined>(
  method: Method,
  path: P,
  right: ApplicationRight,
  more: More<S, B> = {},
) =>
  route<`/studio/api/applications/:app${P}`, ApplicationRight, S, B>({
    ...{ method, path: `/studio/api/applications/:app${path}`, right },
    ...more,
  });

/** A route of the records of one kind of data. */
export const ofRecords = <const P extends string, S = undefined, B = undefined>(
  method: Method,
  path: P,
  to: RecordsRight['records'],
  more: More<S, B> = {},
) =>
  route<`/studio/api/applications/:app/records/:entity${P}`, RecordsRight, S, B>({
    ...{ method, path: `/studio/api/applications/:app/records/:entity${path}`, right: { records: to } },
    ...more,
  });

/** A route of the studio that is of no application. */
export const ofStudio = <
  const P extends string,
  R extends 'builder' | 'anybody',
  S = undefined,
  B = undefined,
>(
  method: Method,
  path: P,
  right: R,
  more: More<S, B> = {},
) => route<`/studio/api${P}`, R, S, B>({ ...{ method, path: `/studio/api${path}`, right }, ...more });

/** A route of a released application. */
export const ofLive = <const P extends string, S = undefined, B = undefined>(
  method: Method,
  path: P,
  more: More<S, B> = {},
) =>
  route<`/live/:app/api${P}`, 'visitor', S, B>({
    ...{ method, path: `/live/:app/api${path}`, right: 'visitor' as const },
    ...more,
  });
