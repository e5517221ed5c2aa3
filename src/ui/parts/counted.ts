/** So many of something: "1 finding", "1,200 findings". */
export const counted = (n: number, one: string): string =>
  `${n.toLocaleString('en-GB')} ${one}${n === 1 ? '' : 's'}`;
