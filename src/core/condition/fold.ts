/**
 * Letters that have one small letter, and those small letters, in the same order: of the Basic Multilingual Plane,
 * one character each. SQL is given the same two texts (`translate`), so that both sides always agree, whatever each
 * knows of Unicode. What becomes several characters (İ) stays as it is.
 */
export const CAPITALS: string = capitals();
export const SMALL: string = [...CAPITALS].map((one) => one.toLowerCase()).join('');

function capitals(): string {
  let found = '';
  for (let code = 0x41; code < 0xd800; code++) {
    const letter = String.fromCharCode(code);
    const small = letter.toLowerCase();
    if (small !== letter && small.length === 1) found += letter;
  }
  return found;
}

const small = new Map([...CAPITALS].map((letter, n) => [letter, SMALL[n] as string]));

/** The text with small letters for capitals. */
export function foldCase(text: string): string {
  let folded = '';
  for (let n = 0; n < text.length; n++) {
    const letter = text[n] as string;
    folded += small.get(letter) ?? letter;
  }
  return folded;
}
