import type * as yup from 'yup';
import { shapeFaults } from '@/core/model';
import { type Bounds, LARGE } from '@/contract/body';
import { Refused } from './problem';

/** The request's JSON body as it was sent, to be parsed where it is worked with. */
export async function readJson(request: Request, most: number): Promise<string> {
  if (!/^application\/json(;|$)/.test(request.headers.get('content-type') ?? ''))
    throw new Refused(415, 'not-json', 'Send the body as application/json.');
  return textOf(await readBytes(request, most));
}

/** A JSON body, checked. Refuses what is not JSON, holds too much, or is not of that shape. */
export function parseBody<T>(
  text: string,
  schema: yup.ISchema<T>,
  { values }: Pick<Bounds, 'values'> = LARGE,
): T {
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    throw new Refused(400, 'not-json', 'The body is not valid JSON.');
  }
  const problems = shapeFaults(schema, body, { values });
  if (problems.length > 0)
    throw new Refused(422, 'shape', 'The request body does not have the expected structure.', { problems });
  return schema.cast(body);
}

/** The request's body, read no further than it may be long, in bytes. */
export async function readBytes(request: Request, most: number): Promise<Uint8Array> {
  const large = (): Refused =>
    new Refused(413, 'too-large', `The body is larger than ${Math.round(most / 1000)} kB.`);
  if (Number(request.headers.get('content-length') ?? 0) > most) throw large();
  const parts: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  for (let part = await reader?.read(); part?.value; part = await reader?.read()) {
    length += part.value.length;
    if (length > most) {
      await reader?.cancel();
      throw large();
    }
    parts.push(part.value);
  }
  return parts.length === 1 ? (parts[0] as Uint8Array) : Buffer.concat(parts);
}

/** Bytes as text (UTF-8, RFC 3629). */
export function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Refused(400, 'not-utf-8', 'The body is not UTF-8.');
  }
}
