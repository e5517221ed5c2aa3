import { readFileSync, writeFileSync } from 'node:fs';
import { readDefinition } from '@/core';
import { type Definition, MOST_VALUES, outOfBounds, upgradeDefinition } from '@/core/model';
import { wrong, WrongInput } from './failure';
import { faultInJson } from './json';

/** What Node says of a file that it cannot use, in words. */
const WHY: Readonly<Record<string, string>> = {
  ENOENT: 'there is no such file or folder',
  EACCES: 'it may not be used',
  EISDIR: 'it is a folder',
  ENOTDIR: 'part of its path is no folder',
  EROFS: 'it may not be written',
  ENOSPC: 'there is no room left',
};

const why = (error: unknown): string =>
  WHY[(error as NodeJS.ErrnoException).code ?? ''] ?? (error as NodeJS.ErrnoException).code ?? 'it failed';

/** What is in a file; `-` is what comes in. */
export function readBytes(file: string): Uint8Array {
  try {
    return readFileSync(file === '-' ? 0 : file);
  } catch (error) {
    throw new WrongInput([wrong(file, `It cannot be read: ${why(error)}.`, 'Name a file that can.')]);
  }
}

/** A file's text, in UTF-8; `-` is what comes in. */
export function readText(file: string): string {
  const bytes = readBytes(file);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new WrongInput([wrong(file, 'It is not UTF-8.', 'Save it as UTF-8.')]);
  }
}

export function writeText(file: string, text: string): void {
  try {
    writeFileSync(file, text);
  } catch (error) {
    throw new WrongInput([wrong(file, `It cannot be written: ${why(error)}.`, 'Name a file that can.')]);
  }
}

/** A file's JSON (RFC 8259), no deeper and no larger than can be worked with. */
export function readJson(file: string): unknown {
  const text = readText(file);
  const fault = faultInJson(text);
  if (fault)
    throw new WrongInput([
      wrong(`${file}, line ${fault.line}, column ${fault.column}`, fault.message, fault.mend),
    ]);
  const json: unknown = JSON.parse(text);
  const large = outOfBounds(json, { values: MOST_VALUES });
  if (large) throw new WrongInput([{ ...large, place: `${file}, ${large.place}` }]);
  return json;
}

/** An application's definition. Every fault in it is told, with its place. */
export function readDefinitionFile(file: string): Definition {
  const read = readDefinition(upgradeDefinition(readJson(file)));
  if (!read.ok)
    throw new WrongInput(read.problems.map((one) => ({ ...one, place: `${file}, ${one.place}` })));
  return read.value;
}
