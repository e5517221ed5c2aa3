/** Runs of letters and digits that could be base64 (RFC 4648, sections 4 and 5), long enough to hold a mark. */
const BASE64 = /[A-Za-z0-9+/_-]{7,}/g;
/** Pairs of hexadecimal digits, also with `0x` or `\x` before them, or with something between them. */
const HEX = /(?:[0-9a-f]{2}){5,}/gi;
/** Single characters written as numbers: of JSON and scripts (`\u005a`, `\x5a`), of addresses (`%5A`; RFC 3986, section 2.1), of HTML (`&#90;`, `&#x5a;`). */
const ESCAPED =
  /\\+u\{?([0-9a-f]{2,4})\}?|\\+x([0-9a-f]{2})|%(?:25)*([0-9a-f]{2})|&#x([0-9a-f]{2,4});?|&#(\d{2,3});?/gi;

/**
 * The texts that a text may hold in another form: with single characters that were written as numbers, and what is
 * written as base64 or as hexadecimal digits. Without those in which nothing is left over.
 *
 * @example
 * decoded('data=WnExMnFa') // → ['Zq12qZ']
 */
export function decoded(text: string): string[] {
  const plain = unescaped(text);
  const within = [...text.matchAll(BASE64)].flatMap(([run]) => fromBase64(run));
  const digits = [...text.matchAll(HEX)].flatMap(([run]) => [fromHex(run), fromHex(run.slice(1))]);
  return [...(plain === text ? [] : [plain]), ...within, ...digits].filter((one) => one.length > 0);
}

const unescaped = (text: string): string =>
  text.replace(ESCAPED, (_, u?: string, x?: string, percent?: string, hex?: string, decimal?: string) =>
    String.fromCharCode(
      decimal === undefined ? parseInt(u ?? x ?? percent ?? hex ?? '', 16) : Number(decimal),
    ),
  );

/** Read from each of the four places at which it could begin: it may be part of something longer. */
function fromBase64(run: string): string[] {
  // Of a mark there are capital letters in it.
  if (run === run.toLowerCase()) return [];
  const plain = run.replaceAll('-', '+').replaceAll('_', '/');
  return [0, 1, 2, 3].map((from) => {
    const part = plain.slice(from);
    return printable(atob(part.slice(0, part.length - (part.length % 4 === 1 ? 1 : 0))));
  });
}

const fromHex = (run: string): string =>
  printable(
    run
      .slice(0, run.length - (run.length % 2))
      .replace(/../g, (pair) => String.fromCharCode(parseInt(pair, 16))),
  );

/** Marks are of printable characters: what is not is left out. */
const printable = (text: string): string => text.replace(/[^ -~]+/g, '\n');
