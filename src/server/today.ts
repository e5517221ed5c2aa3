/** Today's day (RFC 3339): years of two figures are those around it. */
export const today = (): string => new Date().toISOString().slice(0, 10);
