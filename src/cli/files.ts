import { readFileSync } from 'node:fs';
import type { Definition } from '@/core/model/definition';
import { readDefinition } from '@/core/model/schema';
import { upgrade } from '@/core/model/upgrade';
import { wrong, WrongInput } from './failure';

/** A file's text; `-` is what comes in. */
export function readText(file: string): string {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8').replace(/^\uFEFF/, '');
  } catch (error) {
    throw new WrongInput([
      wrong(file, `It cannot be read: ${(error as Error).message}.`, 'Name a file that can.'),
    ]);
  }
}

/** A file's JSON (RFC 8259). */
export function readJson(file: string): unknown {
  try {
    return JSON.parse(readText(file));
  } catch (error) {
    if (error instanceof WrongInput) throw error;
    throw new WrongInput([
      wrong(file, `It is not valid JSON: ${(error as Error).message}.`, 'Correct it at this place.'),
    ]);
  }
}

/** An application's definition. Every fault in it is told, with its place. */
export function readDefinitionFile(file: string): Definition {
  const read = readDefinition(upgrade(readJson(file)));
  if (!read.ok)
    throw new WrongInput(read.problems.map((one) => ({ ...one, place: `${file}, ${one.place}` })));
  return read.value;
}
