import type { ISchema } from 'yup';

/** How large a JSON body may be. */
export interface Bounds {
  /** In bytes. */
  readonly bytes: number;
  /** How many values it may hold, those within each other counted one by one. */
  readonly values: number;
}

/** For what a form, a button or a small script sends: it is read on the server's thread. */
const SMALL: Bounds = { bytes: 100_000, values: 2000 };
/** For what is read where it is worked with, beside the server. */
export const LARGE: Bounds = { bytes: 1_000_000, values: 50_000 };

/** The largest whole number that the database keeps. */
export const MOST_NUMBER = 2_147_483_647;

/** The largest file that is taken, in bytes, with what is around it in a form. */
const MOST_OF_A_FILE = 31_000_000;

/** A body as it was sent, to be read where it is worked with: a form with files, or one file. */
export interface Upload {
  /** Its media type, with the boundary of a form. */
  readonly type: string;
  readonly bytes: Uint8Array;
}

/** What a route is sent, and how its handler has it. */
export type BodyKind<Sends, Reads> =
  | {
      readonly is: 'json';
      /** Loaded where it is read: who only asks has no use for it. */
      readonly schema: () => Promise<ISchema<Sends>>;
      readonly bounds: Bounds;
      /** It is handed on as it was sent, as text, and parsed where it is worked with. */
      readonly beside: boolean;
      readonly reads?: Reads;
    }
  | { readonly is: 'csv' | 'form'; readonly most: number; readonly sends?: Sends; readonly reads?: Reads };

/** What is of the shape of a schema. */
type Of<Schema> = Schema extends ISchema<infer T> ? T : never;

const loading =
  <Module, Name extends keyof Module>(schemas: () => Promise<Module>, name: Name) =>
  async () =>
    (await schemas())[name] as ISchema<Of<Module[Name]>>;

/** JSON of the shape of a schema of a module, which is loaded where the body is read. */
export const json = <Module, Name extends keyof Module>(
  schemas: () => Promise<Module>,
  name: Name,
  bounds: Bounds = SMALL,
): BodyKind<Of<Module[Name]>, Of<Module[Name]>> => ({
  ...{ is: 'json', schema: loading(schemas, name), bounds, beside: false },
});

/** The same for what grows with what somebody made: it is parsed by a worker, not by the server's thread. */
export const jsonBeside = <Module, Name extends keyof Module>(
  schemas: () => Promise<Module>,
  name: Name,
  bytes = LARGE.bytes,
): BodyKind<Of<Module[Name]>, string> => ({
  ...{ is: 'json', schema: loading(schemas, name), bounds: { ...LARGE, bytes }, beside: true },
});

/** A CSV file. */
export const csv = (most = MOST_OF_A_FILE): BodyKind<Blob | string, Uint8Array> => ({ is: 'csv', most });

/** A form with files. */
export const form: BodyKind<FormData, Upload> = { is: 'form', most: MOST_OF_A_FILE };

declare const OF: unique symbol;

/** An answer that comes line by line (NDJSON): how far it is, and at last this. */
export interface Lines<T> {
  readonly [OF]: T;
}

/** An answer in a format of its own. */
export interface Whole {
  readonly [OF]: 'whole';
}
