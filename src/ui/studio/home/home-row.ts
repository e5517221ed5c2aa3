/** One application as its builders see it at home. */
export interface HomeRow {
  readonly slug: string;
  readonly name: string;
  readonly role: 'owner' | 'editor' | 'reviewer';
  readonly people: number;
  /** The release in force; null where there is none. */
  readonly release: number | null;
  /** The newest revision of the draft. */
  readonly revision: number;
  /** How many edits came after the one that was released. */
  readonly since: number;
  /** Findings to look at, and expectations that the draft breaks. */
  readonly lookAt: number;
  /** How many days old the last sign-off is, where that is more than the owner said. */
  readonly overdue: number | null;
  readonly lastChange: { readonly by: string; readonly at: string } | null;
  /** Who else has a bench of it open. */
  readonly here: readonly string[];
}

/** What is done to an application from home. */
export type ApplicationAction = 'builders' | 'copy' | 'rename' | 'move' | 'take-out' | 'delete';
