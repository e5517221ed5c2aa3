import { readFileSync, writeFileSync } from 'node:fs';
import { readDefinition } from '@/core';
import { type Definition, MOST_VALUES, outOfBounds, unknownSettings, upgradeDefinition } from '@/core/model';
import { wrong, WrongInput } from './failure';
import { faultInJson } from './json';

/** What Node says of a file that it cannot use, in words. */
const WHY: Readonly<Record<string, string>> = {
  ENOENT: 'the file or folder does not exist',
  EACCES: 'permission denied',
  EISDIR: 'it is a folder',
  ENOTDIR: 'part of its path is not a folder',
  EROFS: 'permission denied',
  ENOSPC: 'no space left on the disk',
};

const why = (error: unknown): string =>
  WHY[(error as NodeJS.ErrnoException).code ?? ''] ??
  (error as NodeJS.ErrnoException).code ??
  'unknown error';

/** What is in a file; `-` is what comes in. */
export function readBytes(file: string): Uint8Array {
  try {
    return readFileSync(file === '-' ? 0 : file);
  } catch (error) {
    throw new WrongInput([
      wrong(file, `The file cannot be read: ${why(error)}.`, 'Check the path and its permissions.'),
    ]);
  }
}

/** A file's text, in UTF-8; `-` is what comes in. */
export function readText(file: string): string {
  const bytes = readBytes(file);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new WrongInput([wrong(file, 'The file is not UTF-8.', 'Save the file as UTF-8.')]);
  }
}

export function writeText(file: string, text: string): void {
  try {
    writeFileSync(file, text);
  } catch (error) {
    throw new WrongInput([
      wrong(file, `The file cannot be written: ${why(error)}.`, 'Check the path and its permissions.'),
    ]);
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

/** Refuses a currency or a language that is not known, which other commands read over. */
export function refuseUnknownSettings(file: string, definition: Definition): void {
  const unknown = unknownSettings(definition);
  if (unknown.length > 0)
    throw new WrongInput(unknown.map((one) => ({ ...one, place: `${file}, ${one.place}` })));
}

/** An application's definition. Every fault in it is told, with its place. */
export function readDefinitionFile(file: string): Definition {
  const read = readDefinition(upgradeDefinition(readJson(file)));
  if (!read.ok)
    throw new WrongInput(read.problems.map((one) => ({ ...one, place: `${file}, ${one.place}` })));
  return read.value;
}
