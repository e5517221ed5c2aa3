/**
 * What a component is drawn from, sent to the browser as one text. The framework would walk each value of it alone
 * when it is written, when the page is drawn on the server, and when the browser reads it.
 */
export type Sent<T> = string & { readonly of?: T };

export const asSent = <T>(value: T): Sent<T> => JSON.stringify(value);

export const readSent = <T>(text: Sent<T>): T => JSON.parse(text) as T;
