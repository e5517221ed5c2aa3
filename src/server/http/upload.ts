import type { Upload } from '@/contract/body';
import { readBytes } from './body';
import { Refused } from './problem';

/** A form with files as it was sent. */
export async function readForm(request: Request, most: number): Promise<Upload> {
  const type = request.headers.get('content-type') ?? '';
  if (!type.startsWith('multipart/form-data')) throw notAForm();
  return { type, bytes: await readBytes(request, most) };
}

/** A CSV file, which is the body. */
export async function readCsv(request: Request, most: number): Promise<Uint8Array> {
  if (!/^text\/csv(;|$)/.test(request.headers.get('content-type') ?? ''))
    throw new Refused(415, 'not-csv', 'Send the file with the type text/csv.');
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
