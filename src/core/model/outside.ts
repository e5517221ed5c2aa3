/** Is it the address of a page outside, as a button may lead to: https, with a host and without a password? */
export function isOutside(text: string): boolean {
  if (!/^https:\/\//i.test(text) || !URL.canParse(text)) return false;
  const { username, password } = new URL(text);
  return username === '' && password === '';
}

/** The host that an address outside leads to: what people are told before they go. */
export const hostOf = (url: string): string => (URL.canParse(url) ? new URL(url).host : url);
