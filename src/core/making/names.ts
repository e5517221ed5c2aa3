/** What one and many of a sheet's rows are called. */
export interface Names {
  readonly name: string;
  readonly plural: string;
}

const LAST_WORD = /^(.*?)(\p{L}+)$/su;

/**
 * Names for what a file holds, by its own: "loan_items" holds many a "Loan item". Guessed by English endings; the
 * builder may write others.
 *
 * @example
 * namesOf('loan_items') // → { name: 'Loan item', plural: 'Loan items' }
 * namesOf('category') // → { name: 'Category', plural: 'Categories' }
 */
export function namesOf(file: string): Names {
  const words = titled(file);
  const [, before = '', last = ''] = LAST_WORD.exec(words) ?? [];
  if (!last) return { name: words, plural: words };
  const one = singular(last);
  const many = one === last ? plural(last) : last;
  return { name: before + one, plural: before + many };
}

/** A heading from what a machine would call it: "due_back" and "dueBack" are "Due back". */
export function titled(text: string): string {
  const words = text
    .normalize('NFC')
    .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
    .replace(/[_\s.]+/g, ' ')
    .replace(/(?<=\p{L})-(?=\p{L})/gu, ' ')
    .trim();
  const plain =
    /\p{Ll} \p{Lu}\p{Ll}/u.test(words) && !/ \p{Lu}{2}/u.test(words) ? words.toLowerCase() : words;
  return plain && plain.charAt(0).toLocaleUpperCase('en') + plain.slice(1);
}

function singular(word: string): string {
  if (/(?:ss|us|is|news|series)$/i.test(word)) return word;
  if (/ies$/i.test(word) && word.length > 4) return `${word.slice(0, -3)}y`;
  if (/(?:ch|sh|x|ss|z)es$/i.test(word)) return word.slice(0, -2);
  return /s$/i.test(word) && word.length > 2 ? word.slice(0, -1) : word;
}

function plural(word: string): string {
  if (/[^aeiou]y$/i.test(word)) return `${word.slice(0, -1)}ies`;
  return /(?:ch|sh|x|s|z)$/i.test(word) ? `${word}es` : `${word}s`;
}

/** A part of an address from words: small letters and figures, parted by hyphens; never empty. */
export function addressFrom(words: string, otherwise: string): string {
  const plain = words
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60)
    .replace(/-+$/, '');
  return plain || otherwise;
}
