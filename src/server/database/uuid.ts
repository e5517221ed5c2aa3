/** Is it a UUID as the database has them (RFC 9562)? What is none is the id of nothing. */
export const isUuid = (text: string): boolean => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(text);
