/** The noun with *a* or *an* before it, by how it begins: `an Item`, `a Unit`. */
export const withArticle = (noun: string): string =>
  `${/^(?!uni|use|eu|one)[aeiou]/i.test(noun) ? 'an' : 'a'} ${noun}`;
