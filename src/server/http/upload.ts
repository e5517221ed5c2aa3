import { readBytes } from './body';
import { Refused } from './problem';

/** A body as it was sent, to be read where it is worked with: a form with files, or one file. */
export interface Upload {
  /** Its media type, with the boundary of a form. */
  readonly type: string;
  readonly bytes: Uint8Array;
}

/** The largest file that is taken, in bytes, with what is around it in a form. */
const MOST_BYTES = 31_000_000;

/** A form with files as it was sent. */
export async function readForm(request: Request): Promise<Upload> {
  const type = request.headers.get('content-type') ?? '';
  if (!type.startsWith('multipart/form-data')) throw notAForm();
  return { type, bytes: await readBytes(request, MOST_BYTES) };
}

/** A CSV file, which is the body. */
export async function readCsv(request: Request, most = MOST_BYTES): Promise<Uint8Array> {
  if (!/^text\/csv(;|$)/.test(request.headers.get('content-type') ?? ''))
    throw new Refused(415, 'not-csv', 'Send the file as text/csv.');
  return readBytes(request, most);
}

const notAForm = (): Refused => new Refused(400, 'not-a-form', 'Send the files as multipart/form-data.');

/** The parts of a form (RFC 7578): files, and what is said of them as JSON under other names. */
export async function partsOf({ type, bytes }: Upload): Promise<FormData> {
  try {
    return await new Response(bytes as Uint8Array<ArrayBuffer>, {
      headers: { 'Content-Type': type },
    }).formData();
  } catch {
    throw notAForm();
  }
}
