export const BUILDER_ROLES = ['owner', 'editor', 'reviewer'] as const;
export type BuilderRole = (typeof BUILDER_ROLES)[number];

/** What a builder may do with live records. */
export const LIVE_RIGHTS = ['none', 'read', 'change'] as const;
export type LiveRight = (typeof LIVE_RIGHTS)[number];
